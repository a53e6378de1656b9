ALTER TABLE `catches` ADD `later_handling` json;--> statement-breakpoint
ALTER TABLE `catches` ADD `clock_offset_ms` bigint;--> statement-breakpoint
ALTER TABLE `event_days` ADD `codes_from` datetime(3);