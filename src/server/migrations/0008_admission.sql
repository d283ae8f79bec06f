ALTER TABLE `entries` ADD `person` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `made_at` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `prior` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `imported` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `history` text;--> statement-breakpoint
ALTER TABLE `sign_ins` ADD `form` integer DEFAULT 1 NOT NULL;