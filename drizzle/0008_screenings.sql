CREATE TABLE `guest_notes` (
	`id` text PRIMARY KEY NOT NULL,
	`screening_id` text NOT NULL,
	`show_id` text NOT NULL,
	`reply_to` text,
	`at_ms` integer NOT NULL,
	`slide_id` text,
	`before` text NOT NULL,
	`kind` text NOT NULL,
	`by` text NOT NULL,
	`name` text NOT NULL,
	`words` text NOT NULL,
	`state` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`screening_id`) REFERENCES `screenings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `guest_notes_of_show` ON `guest_notes` (`show_id`);--> statement-breakpoint
CREATE INDEX `guest_notes_of_screening` ON `guest_notes` (`screening_id`);--> statement-breakpoint
CREATE TABLE `screening_films` (
	`screening_id` text NOT NULL,
	`film_id` text NOT NULL,
	PRIMARY KEY(`screening_id`, `film_id`),
	FOREIGN KEY (`screening_id`) REFERENCES `screenings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `screening_passes` (
	`hash` text PRIMARY KEY NOT NULL,
	`screening_id` text NOT NULL,
	`until` integer NOT NULL,
	FOREIGN KEY (`screening_id`) REFERENCES `screenings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `screenings` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`show_id` text NOT NULL,
	`token` text NOT NULL,
	`title` text,
	`password_hash` text,
	`ends_at` integer,
	`shut` integer DEFAULT false NOT NULL,
	`may_take` integer DEFAULT false NOT NULL,
	`guest_book` integer DEFAULT true NOT NULL,
	`counts` integer DEFAULT true NOT NULL,
	`call` text,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `screenings_token_unique` ON `screenings` (`token`);--> statement-breakpoint
CREATE INDEX `screenings_of_show` ON `screenings` (`show_id`);--> statement-breakpoint
CREATE TABLE `viewings` (
	`id` text PRIMARY KEY NOT NULL,
	`screening_id` text NOT NULL,
	`watched` text NOT NULL,
	`seen_ms` integer NOT NULL,
	`started_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`screening_id`) REFERENCES `screenings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `viewings_of_screening` ON `viewings` (`screening_id`);--> statement-breakpoint
-- Links given before go on working, as they were: without a guest book, without counting.
INSERT INTO `screenings` (`id`, `studio_id`, `show_id`, `token`, `guest_book`, `counts`, `created_at`) SELECT `id`, `studio_id`, `show_id`, `screening_token`, false, false, `ordered_at` FROM `films` WHERE `state` = 'ready' AND coalesce(json_extract(`spec`, '$.format'), 'mp4') IN ('mp4', 'vp9', 'av1');--> statement-breakpoint
INSERT INTO `screening_films` (`screening_id`, `film_id`) SELECT `id`, `id` FROM `screenings`;--> statement-breakpoint
DROP INDEX `films_screening_token_unique`;--> statement-breakpoint
ALTER TABLE `films` DROP COLUMN `screening_token`;