CREATE TABLE `security_log` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` text NOT NULL,
	`what` text NOT NULL,
	`who` text NOT NULL,
	`device` text NOT NULL,
	`detail` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `entries` ADD `person` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `made_at` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `prior` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `imported` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `history` text;--> statement-breakpoint
CREATE INDEX `entries_checks` ON `entries` (`recorded_at`) WHERE kind = 'check';--> statement-breakpoint
ALTER TABLE `sign_ins` ADD `form` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `people` DROP COLUMN `wrong`;--> statement-breakpoint
CREATE TRIGGER `security_log_kept` BEFORE UPDATE ON `security_log` BEGIN
	SELECT RAISE(ABORT, 'The security log is only ever appended to');
END;--> statement-breakpoint
CREATE TRIGGER `security_log_stays` BEFORE DELETE ON `security_log` BEGIN
	SELECT RAISE(ABORT, 'The security log is only ever appended to');
END;
