ALTER TABLE `films` ADD `spec` text;--> statement-breakpoint
ALTER TABLE `films` ADD `kept_frames` integer;--> statement-breakpoint
ALTER TABLE `films` ADD `likeness` real;