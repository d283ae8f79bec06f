ALTER TABLE `jobs` ADD `top` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `folded` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE `jobs` SET `top` = (SELECT coalesce(max(`seq`), 0) FROM `entries` WHERE `entries`.`job_id` = `jobs`.`id`);--> statement-breakpoint
UPDATE `jobs` SET `folded` = `top`;--> statement-breakpoint
CREATE INDEX `jobs_newest` ON `jobs` (`updated_at`);--> statement-breakpoint
CREATE INDEX `jobs_stale` ON `jobs` (`id`) WHERE folded < top;