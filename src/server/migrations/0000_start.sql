CREATE TABLE `customers` (
	`job_id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`contact` text NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `entries` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`seq` integer NOT NULL,
	`kind` text NOT NULL,
	`v` integer NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`device` text NOT NULL,
	`device_seq` integer NOT NULL,
	`seen_seq` integer NOT NULL,
	`body` text NOT NULL,
	`corrects` text,
	`recorded_at` text NOT NULL,
	`clamped_from` text,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `entries_order` ON `entries` (`job_id`,`seq`);--> statement-breakpoint
CREATE TABLE `files` (
	`job_id` text NOT NULL,
	`sha256` text NOT NULL,
	`name` text NOT NULL,
	`bytes` integer NOT NULL,
	`created_at` text NOT NULL,
	PRIMARY KEY(`job_id`, `sha256`),
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`created_at` text NOT NULL,
	`status` text NOT NULL,
	`station` text NOT NULL,
	`reason` text NOT NULL,
	`waiting_on` text NOT NULL,
	`vehicle` text NOT NULL,
	`registration` text NOT NULL,
	`complaint` text NOT NULL,
	`codes` text NOT NULL,
	`updated_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_number_unique` ON `jobs` (`number`);--> statement-breakpoint
CREATE INDEX `jobs_board` ON `jobs` (`status`,`waiting_on`,`updated_at`);--> statement-breakpoint
CREATE TABLE `mappings` (
	`signature` text PRIMARY KEY NOT NULL,
	`mapping` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `people` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`created_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `people_name_unique` ON `people` (`name`);--> statement-breakpoint
CREATE TABLE `settings` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
