CREATE TABLE `codes` (
	`hash` text PRIMARY KEY NOT NULL,
	`until` integer NOT NULL,
	`by` text
);
--> statement-breakpoint
CREATE TABLE `people` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`initials` text NOT NULL,
	`name` text NOT NULL,
	`may` text NOT NULL,
	`gone` integer NOT NULL,
	`by` text,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `people_id` ON `people` (`id`,`seq`);--> statement-breakpoint
CREATE TABLE `pins` (
	`person` text PRIMARY KEY NOT NULL,
	`hash` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sittings` (
	`id` text PRIMARY KEY NOT NULL,
	`tablet` text NOT NULL,
	`person` text NOT NULL,
	`initials` text NOT NULL,
	`may` text NOT NULL,
	`began` integer NOT NULL,
	`ended` integer
);
--> statement-breakpoint
CREATE INDEX `sittings_tablet` ON `sittings` (`tablet`,`ended`);--> statement-breakpoint
CREATE TABLE `tablet_keys` (
	`hash` text PRIMARY KEY NOT NULL,
	`tablet` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `tablets` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`name` text NOT NULL,
	`machine` text,
	`locks_after` integer NOT NULL,
	`out` integer NOT NULL,
	`by` text,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `tablets_id` ON `tablets` (`id`,`seq`);--> statement-breakpoint
ALTER TABLE `entries` ADD `tablet` text;