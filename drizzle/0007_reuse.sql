CREATE TABLE `mounts` (
	`studio_id` text NOT NULL,
	`id` text NOT NULL,
	`name` text NOT NULL,
	`document` blob NOT NULL,
	`missing` text NOT NULL,
	`created_at` integer NOT NULL,
	`removed_at` integer,
	PRIMARY KEY(`studio_id`, `id`)
);
--> statement-breakpoint
CREATE TABLE `studios` (
	`id` text PRIMARY KEY NOT NULL,
	`profile` text NOT NULL,
	`revision` integer NOT NULL
);
