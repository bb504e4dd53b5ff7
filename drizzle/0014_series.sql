CREATE TABLE `series` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`title` text NOT NULL,
	`show_id` text NOT NULL,
	`plan` text NOT NULL,
	`purpose` text NOT NULL,
	`folder` text,
	`screened` integer NOT NULL,
	`bill_id` text,
	`pattern` text,
	`state` text NOT NULL,
	`begun_at` integer,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `series_of_studio` ON `series` (`studio_id`);--> statement-breakpoint
CREATE TABLE `series_rows` (
	`series_id` text NOT NULL,
	`number` integer NOT NULL,
	`state` text NOT NULL,
	`problem` text,
	`told` text NOT NULL,
	`show_id` text,
	`film_id` text,
	`screening_id` text,
	`built_from` text,
	`built_revision` integer,
	`ended_at` integer,
	PRIMARY KEY(`series_id`, `number`),
	FOREIGN KEY (`series_id`) REFERENCES `series`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `series_rows_of_show` ON `series_rows` (`show_id`);