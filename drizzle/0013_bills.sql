CREATE TABLE `bills` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`token` text NOT NULL,
	`title` text NOT NULL,
	`words` text NOT NULL,
	`screenings` text NOT NULL,
	`shut` integer NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `bills_token_unique` ON `bills` (`token`);--> statement-breakpoint
CREATE INDEX `bills_of_studio` ON `bills` (`studio_id`);