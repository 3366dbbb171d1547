CREATE TABLE `texts` (
	`hash` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL
);
