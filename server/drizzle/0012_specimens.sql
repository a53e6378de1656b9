CREATE TABLE `specimen_photographs` (
	`specimen_id` uuid NOT NULL,
	`photograph_id` uuid NOT NULL,
	`seq` smallint NOT NULL,
	CONSTRAINT `specimen_photographs_specimen_id_seq_pk` PRIMARY KEY(`specimen_id`,`seq`)
);
--> statement-breakpoint
CREATE TABLE `specimens` (
	`specimen_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`entrant_id` uuid NOT NULL,
	`record` json NOT NULL,
	`corrects_id` uuid,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `specimens_specimen_id` PRIMARY KEY(`specimen_id`),
	CONSTRAINT `specimens_corrects` UNIQUE(`corrects_id`)
);
--> statement-breakpoint
ALTER TABLE `specimen_photographs` ADD CONSTRAINT `specimen_photographs_specimen_id_specimens_specimen_id_fk` FOREIGN KEY (`specimen_id`) REFERENCES `specimens`(`specimen_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `specimen_photographs` ADD CONSTRAINT `specimen_photographs_photograph_id_photographs_photograph_id_fk` FOREIGN KEY (`photograph_id`) REFERENCES `photographs`(`photograph_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `specimens` ADD CONSTRAINT `specimens_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `specimens` ADD CONSTRAINT `specimens_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `specimens` ADD CONSTRAINT `specimens_corrects_id_specimens_specimen_id_fk` FOREIGN KEY (`corrects_id`) REFERENCES `specimens`(`specimen_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `specimen_photographs_photograph` ON `specimen_photographs` (`photograph_id`);--> statement-breakpoint
CREATE INDEX `specimens_event` ON `specimens` (`event_id`);