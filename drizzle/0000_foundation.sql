CREATE TABLE `assets` (
	`id` text PRIMARY KEY NOT NULL,
	`mime` text NOT NULL,
	`byte_count` integer NOT NULL,
	`facts` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `edits` (
	`show_id` text NOT NULL,
	`revision` integer NOT NULL,
	`edit_id` text NOT NULL,
	`edit` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`show_id`, `revision`),
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `edits_once` ON `edits` (`show_id`,`edit_id`);--> statement-breakpoint
CREATE TABLE `films` (
	`id` text PRIMARY KEY NOT NULL,
	`show_id` text NOT NULL,
	`document` text NOT NULL,
	`title` text NOT NULL,
	`height_px` integer NOT NULL,
	`frames_per_second` integer NOT NULL,
	`state` text NOT NULL,
	`stage` text,
	`frames_done` integer NOT NULL,
	`frame_count` integer NOT NULL,
	`problem` text,
	`byte_count` integer,
	`screening_token` text NOT NULL,
	`ordered_at` integer NOT NULL,
	`started_at` integer,
	`finished_at` integer,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `films_screening_token_unique` ON `films` (`screening_token`);--> statement-breakpoint
CREATE INDEX `films_of_show` ON `films` (`show_id`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`subject_id` text NOT NULL,
	`state` text NOT NULL,
	`holder` text,
	`lease_until` integer,
	`attempts` integer NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `jobs_by_state` ON `jobs` (`state`);--> statement-breakpoint
CREATE TABLE `sheet_entries` (
	`id` text PRIMARY KEY NOT NULL,
	`show_id` text NOT NULL,
	`asset_id` text NOT NULL,
	`file_name` text NOT NULL,
	`byte_count` integer NOT NULL,
	`state` text NOT NULL,
	`problem` text,
	`added_at` integer NOT NULL,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `sheet_entries_once` ON `sheet_entries` (`show_id`,`asset_id`);--> statement-breakpoint
CREATE INDEX `sheet_entries_state` ON `sheet_entries` (`state`);--> statement-breakpoint
CREATE TABLE `shows` (
	`id` text PRIMARY KEY NOT NULL,
	`document` text NOT NULL,
	`document_revision` integer NOT NULL,
	`revision` integer NOT NULL,
	`title` text NOT NULL,
	`slide_count` integer NOT NULL,
	`length_ms` integer NOT NULL,
	`poster_asset_id` text,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`removed_at` integer
);
