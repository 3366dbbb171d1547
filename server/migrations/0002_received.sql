CREATE TABLE `logbook` (
	`id` text PRIMARY KEY NOT NULL
);
--> statement-breakpoint
ALTER TABLE `entries` ADD `received` integer;--> statement-breakpoint
ALTER TABLE `entries` ADD `latest` integer;--> statement-breakpoint
CREATE INDEX `entries_received` ON `entries` (`received`);