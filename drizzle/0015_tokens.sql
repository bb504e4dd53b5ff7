CREATE TABLE `hooks` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`url` text NOT NULL,
	`secret` text NOT NULL,
	`events` text NOT NULL,
	`last` text,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `hooks_of_studio` ON `hooks` (`studio_id`);--> statement-breakpoint
CREATE TABLE `tokens` (
	`id` text PRIMARY KEY NOT NULL,
	`hash` text NOT NULL,
	`account_id` text NOT NULL,
	`name` text NOT NULL,
	`scopes` text NOT NULL,
	`created_at` integer NOT NULL,
	`used_at` integer,
	`until` integer,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `tokens_hash_unique` ON `tokens` (`hash`);--> statement-breakpoint
CREATE INDEX `tokens_of_account` ON `tokens` (`account_id`);