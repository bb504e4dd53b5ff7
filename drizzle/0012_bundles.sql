CREATE TABLE `bundle_intakes` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`file_name` text NOT NULL,
	`state` text NOT NULL,
	`problem` text,
	`show_id` text,
	`file_count` integer,
	`bad` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `bundle_intakes_of_studio` ON `bundle_intakes` (`studio_id`);