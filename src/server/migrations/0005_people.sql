CREATE TABLE `devices` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`token` text NOT NULL,
	`gate` text NOT NULL,
	`enrolled_at` text NOT NULL,
	`last_seen` text NOT NULL,
	`out_at` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `devices_token_unique` ON `devices` (`token`);--> statement-breakpoint
CREATE TABLE `sign_ins` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`device_id` text NOT NULL,
	`role` text NOT NULL,
	`key` text NOT NULL,
	`at` text NOT NULL,
	`ended_at` text,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `entries` ADD `role` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `signed` text;--> statement-breakpoint
ALTER TABLE `people` ADD `role` text DEFAULT 'technician' NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `pin` text;--> statement-breakpoint
ALTER TABLE `people` ADD `pin_salt` text;--> statement-breakpoint
ALTER TABLE `people` ADD `wrong` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `left_at` text;