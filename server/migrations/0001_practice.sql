CREATE TABLE `practice` (
	`id` text PRIMARY KEY NOT NULL,
	`by` text NOT NULL,
	`body` text NOT NULL
);
