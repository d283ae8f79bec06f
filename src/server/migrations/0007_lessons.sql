CREATE TABLE `lessons` (
	`job_id` text PRIMARY KEY NOT NULL,
	`lessons` text NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
DROP INDEX `jobs_board`;--> statement-breakpoint
ALTER TABLE `jobs` ADD `engine` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `calls` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `lane` integer GENERATED ALWAYS AS (case when status = 'closed' then 6 when waiting_on = 'lead' then 0 when status not in ('open', 'review') then 6 else case waiting_on when 'me' then 1 when 'customer' then 2 when 'part' then 3 when 'cold-soak' then 4 when 'drive' then 5 else 1 end end) VIRTUAL;--> statement-breakpoint
CREATE INDEX `jobs_engine` ON `jobs` (`engine`);--> statement-breakpoint
CREATE INDEX `jobs_board` ON `jobs` (`practice`,`lane`,updated_at desc,`id`,`status`);--> statement-breakpoint
UPDATE `jobs` SET `folded` = 0;--> statement-breakpoint
CREATE VIRTUAL TABLE `job_search` USING fts5(`number`, `vehicle`, `registration`, `complaint`, `codes`, content='jobs', content_rowid='number', tokenize='trigram');--> statement-breakpoint
CREATE TRIGGER `job_search_added` AFTER INSERT ON `jobs` BEGIN
	INSERT INTO job_search(rowid, number, vehicle, registration, complaint, codes) VALUES (new.number, new.number, new.vehicle, new.registration, new.complaint, new.codes);
END;--> statement-breakpoint
CREATE TRIGGER `job_search_gone` AFTER DELETE ON `jobs` BEGIN
	INSERT INTO job_search(job_search, rowid, number, vehicle, registration, complaint, codes) VALUES ('delete', old.number, old.number, old.vehicle, old.registration, old.complaint, old.codes);
END;--> statement-breakpoint
CREATE TRIGGER `job_search_changed` AFTER UPDATE OF number, vehicle, registration, complaint, codes ON `jobs`
WHEN old.number <> new.number OR old.vehicle <> new.vehicle OR old.registration <> new.registration OR old.complaint <> new.complaint OR old.codes <> new.codes
BEGIN
	INSERT INTO job_search(job_search, rowid, number, vehicle, registration, complaint, codes) VALUES ('delete', old.number, old.number, old.vehicle, old.registration, old.complaint, old.codes);
	INSERT INTO job_search(rowid, number, vehicle, registration, complaint, codes) VALUES (new.number, new.number, new.vehicle, new.registration, new.complaint, new.codes);
END;--> statement-breakpoint
INSERT INTO job_search(job_search) VALUES ('rebuild');
