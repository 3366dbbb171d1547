CREATE TABLE `retirements` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`noun` text NOT NULL,
	`id` text NOT NULL,
	`retired` integer NOT NULL,
	`by` text,
	`at` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `reference` ADD `by` text;--> statement-breakpoint
ALTER TABLE `reference` ADD `at` integer;