CREATE TABLE `burns` (
	`id` text PRIMARY KEY NOT NULL,
	`disc_id` text NOT NULL,
	`state` text NOT NULL,
	`problem` text,
	`serial` text,
	`ordered_at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`disc_id`) REFERENCES `discs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `burns_of_disc` ON `burns` (`disc_id`);--> statement-breakpoint
CREATE TABLE `discs` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`plan` text NOT NULL,
	`state` text NOT NULL,
	`problem` text,
	`made_of` text,
	`made_at` integer,
	`byte_count` integer,
	`image_hash` text,
	`report` text,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `discs_of_studio` ON `discs` (`studio_id`);