ALTER TABLE `jobs` ADD `person` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `families` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `recheck` text DEFAULT '' NOT NULL;--> statement-breakpoint
UPDATE `jobs` SET `folded` = 0;
