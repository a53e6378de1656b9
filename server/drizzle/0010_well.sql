CREATE TABLE `well_entries` (
	`entry_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`entrant_id` uuid NOT NULL,
	`day_id` uuid NOT NULL,
	`at_ms` bigint NOT NULL,
	`act` json NOT NULL,
	`heard_at` datetime(3) NOT NULL,
	CONSTRAINT `well_entries_entry_id` PRIMARY KEY(`entry_id`)
);
--> statement-breakpoint
ALTER TABLE `well_entries` ADD CONSTRAINT `well_entries_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `well_entries` ADD CONSTRAINT `well_entries_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `well_entries` ADD CONSTRAINT `well_entries_day_id_event_days_day_id_fk` FOREIGN KEY (`day_id`) REFERENCES `event_days`(`day_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `well_entries_entrant` ON `well_entries` (`entrant_id`,`day_id`);