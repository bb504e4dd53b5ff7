CREATE TABLE `channel_asks` (
	`hash` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`studio_id` text NOT NULL,
	`place` text NOT NULL,
	`verifier` text NOT NULL,
	`redirect` text NOT NULL,
	`show_id` text NOT NULL,
	`until` integer NOT NULL,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `channels` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`place` text NOT NULL,
	`name` text NOT NULL,
	`access_token` text,
	`refresh_token` text,
	`expires_at` integer,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `channels_of_studio` ON `channels` (`studio_id`);--> statement-breakpoint
CREATE TABLE `publications` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`show_id` text NOT NULL,
	`kind` text NOT NULL,
	`to` text NOT NULL,
	`title` text NOT NULL,
	`wanted` text NOT NULL,
	`key` text NOT NULL,
	`state` text NOT NULL,
	`problem` text,
	`handed_at` integer,
	`outside_id` text,
	`upload_url` text,
	`address` text,
	`ordered_at` integer NOT NULL,
	`ended_at` integer,
	`seen_at` integer,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `publications_of_show` ON `publications` (`show_id`);