CREATE TABLE `proof_marks` (
	`proof_id` text NOT NULL,
	`asset_id` text NOT NULL,
	`mark` text,
	`note` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`proof_id`, `asset_id`),
	FOREIGN KEY (`proof_id`) REFERENCES `proofs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `proofs` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`show_id` text NOT NULL,
	`token` text NOT NULL,
	`label` text NOT NULL,
	`pictures` text NOT NULL,
	`longest_px` integer NOT NULL,
	`watermark` text,
	`ends_at` integer,
	`shut` integer DEFAULT false NOT NULL,
	`sent_at` integer,
	`sent_by` text,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `proofs_token_unique` ON `proofs` (`token`);--> statement-breakpoint
CREATE INDEX `proofs_of_show` ON `proofs` (`show_id`);