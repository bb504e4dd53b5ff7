CREATE TABLE `folder_intakes` (
	`show_id` text PRIMARY KEY NOT NULL,
	`folder` text NOT NULL,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `versions` (
	`id` text PRIMARY KEY NOT NULL,
	`show_id` text NOT NULL,
	`name` text NOT NULL,
	`why` text NOT NULL,
	`content` text NOT NULL,
	`slide_count` integer NOT NULL,
	`length_ms` integer NOT NULL,
	`created_at` integer NOT NULL,
	`removed_at` integer,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `versions_of_show` ON `versions` (`show_id`,`created_at`);--> statement-breakpoint
ALTER TABLE `shows` ADD `archived_at` integer;