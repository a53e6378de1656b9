CREATE TABLE `flanks` (
	`catch_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`photograph_id` uuid NOT NULL,
	`length_mm` double,
	`sigma_mm` double,
	`flank` json,
	CONSTRAINT `flanks_catch_id` PRIMARY KEY(`catch_id`)
);
--> statement-breakpoint
ALTER TABLE `flanks` ADD CONSTRAINT `flanks_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `flanks_event` ON `flanks` (`event_id`);