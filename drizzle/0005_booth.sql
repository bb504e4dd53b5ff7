CREATE TABLE `takes` (
	`id` text PRIMARY KEY NOT NULL,
	`show_id` text NOT NULL,
	`slide_id` text,
	`name` text NOT NULL,
	`rate` integer NOT NULL,
	`started_at` integer NOT NULL,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `takes_of_show` ON `takes` (`show_id`);--> statement-breakpoint
ALTER TABLE `sheet_entries` ADD `made` text;