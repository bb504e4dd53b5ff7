CREATE TABLE `accounts` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`role` text NOT NULL,
	`name` text NOT NULL,
	`email` text,
	`password_hash` text,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `accounts_email_unique` ON `accounts` (`email`);--> statement-breakpoint
CREATE INDEX `accounts_of_studio` ON `accounts` (`studio_id`);--> statement-breakpoint
CREATE TABLE `audit` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`studio_id` text NOT NULL,
	`account_id` text,
	`name` text NOT NULL,
	`did` text NOT NULL,
	`what` text NOT NULL,
	`count` integer NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `audit_of_studio` ON `audit` (`studio_id`,`at`);--> statement-breakpoint
CREATE TABLE `entries` (
	`hash` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`until` integer NOT NULL,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `invitations` (
	`id` text PRIMARY KEY NOT NULL,
	`hash` text NOT NULL,
	`studio_id` text NOT NULL,
	`role` text NOT NULL,
	`show_id` text,
	`label` text NOT NULL,
	`created_at` integer NOT NULL,
	`until` integer NOT NULL,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `invitations_hash_unique` ON `invitations` (`hash`);--> statement-breakpoint
CREATE INDEX `invitations_of_studio` ON `invitations` (`studio_id`);--> statement-breakpoint
CREATE TABLE `passkeys` (
	`id` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`public_key` text NOT NULL,
	`counter` integer NOT NULL,
	`transports` text NOT NULL,
	`name` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `passkeys_of_account` ON `passkeys` (`account_id`);--> statement-breakpoint
CREATE TABLE `sessions` (
	`hash` text PRIMARY KEY NOT NULL,
	`id` text NOT NULL,
	`account_id` text NOT NULL,
	`browser` text NOT NULL,
	`created_at` integer NOT NULL,
	`seen_at` integer NOT NULL,
	`until` integer NOT NULL,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `sessions_id_unique` ON `sessions` (`id`);--> statement-breakpoint
CREATE INDEX `sessions_of_account` ON `sessions` (`account_id`);--> statement-breakpoint
CREATE TABLE `show_guests` (
	`account_id` text NOT NULL,
	`show_id` text NOT NULL,
	PRIMARY KEY(`account_id`, `show_id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
