CREATE TABLE `entries` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`setup` text NOT NULL,
	`body` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `entries_id_unique` ON `entries` (`id`);--> statement-breakpoint
CREATE INDEX `entries_setup` ON `entries` (`setup`,`seq`);--> statement-breakpoint
CREATE TABLE `reference` (
	`noun` text NOT NULL,
	`id` text NOT NULL,
	`version` integer NOT NULL,
	`body` text NOT NULL,
	PRIMARY KEY(`noun`, `id`, `version`)
);
