CREATE TABLE `shop_versions` (
	`version` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
INSERT INTO `shop_versions` (`at`, `by`, `value`) SELECT strftime('%Y-%m-%dT%H:%M:%fZ', 'now'), '', `value` FROM `settings` WHERE `key` = 'shop';--> statement-breakpoint
DROP TABLE `settings`;
