ALTER TABLE `jobs` ADD `proved` text DEFAULT '' NOT NULL;--> statement-breakpoint
UPDATE `jobs` SET `folded` = 0;
