CREATE TABLE `corrections` (
	`studio_id` text NOT NULL,
	`asset_id` text NOT NULL,
	`kind` text NOT NULL,
	`revision` integer NOT NULL,
	`value` text,
	`at` integer NOT NULL,
	PRIMARY KEY(`studio_id`, `asset_id`, `kind`, `revision`)
);
--> statement-breakpoint
CREATE TABLE `facts` (
	`asset_id` text NOT NULL,
	`kind` text NOT NULL,
	`method_version` integer NOT NULL,
	`value` text NOT NULL,
	`made_at` integer NOT NULL,
	PRIMARY KEY(`asset_id`, `kind`, `method_version`)
);
--> statement-breakpoint
CREATE TABLE `film_documents` (
	`film_id` text PRIMARY KEY NOT NULL,
	`document` blob NOT NULL,
	FOREIGN KEY (`film_id`) REFERENCES `films`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
-- Work that was under way is ordered anew from the films that wait for it.
DROP TABLE `jobs`;--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`kind` text NOT NULL,
	`key` text NOT NULL,
	`data` blob NOT NULL,
	`priority` integer NOT NULL,
	`state` text NOT NULL,
	`holder` text,
	`fence` integer NOT NULL,
	`lease_until` integer,
	`tries` integer NOT NULL,
	`not_before` integer NOT NULL,
	`problem` text,
	`created_at` integer NOT NULL,
	`ended_at` integer
);
--> statement-breakpoint
CREATE TABLE `job_progress` (
	`job_id` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `jobs_to_take` ON `jobs` (`state`,`kind`,`priority`);--> statement-breakpoint
CREATE INDEX `jobs_by_key` ON `jobs` (`kind`,`key`);--> statement-breakpoint
ALTER TABLE `edits` ADD `format_version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `films` ADD `studio_id` text DEFAULT 'studio' NOT NULL;--> statement-breakpoint
INSERT INTO `film_documents` (`film_id`, `document`) SELECT `id`, `document` FROM `films`;--> statement-breakpoint
ALTER TABLE `films` DROP COLUMN `document`;--> statement-breakpoint
ALTER TABLE `films` DROP COLUMN `stage`;--> statement-breakpoint
ALTER TABLE `films` DROP COLUMN `frames_done`;--> statement-breakpoint
ALTER TABLE `shows` ADD `studio_id` text DEFAULT 'studio' NOT NULL;--> statement-breakpoint
ALTER TABLE `versions` ADD `format_version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
INSERT INTO `facts` (`asset_id`, `kind`, `method_version`, `value`, `made_at`) SELECT `id`, 'basics', 1, `facts`, 0 FROM `assets`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `facts`;