CREATE TABLE `documents` (
	`show_id` text PRIMARY KEY NOT NULL,
	`revision` integer NOT NULL,
	`document` blob NOT NULL,
	FOREIGN KEY (`show_id`) REFERENCES `shows`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `documents` (`show_id`, `revision`, `document`) SELECT `id`, `document_revision`, `document` FROM `shows`;--> statement-breakpoint
ALTER TABLE `shows` DROP COLUMN `document`;--> statement-breakpoint
ALTER TABLE `shows` DROP COLUMN `document_revision`;