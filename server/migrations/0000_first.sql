CREATE TABLE `documents` (
	`system_id` varchar(64) NOT NULL,
	`path` varchar(190) NOT NULL,
	`revision` int NOT NULL,
	`body` longtext NOT NULL,
	CONSTRAINT `documents_system_id_path_pk` PRIMARY KEY(`system_id`,`path`)
) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;
--> statement-breakpoint
CREATE TABLE `edits` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`system_id` varchar(64) NOT NULL,
	`path` varchar(190) NOT NULL,
	`revision` int NOT NULL,
	`patch` longtext NOT NULL,
	`inverse` longtext NOT NULL,
	`kind` varchar(8) NOT NULL,
	`change_id` varchar(64) NOT NULL,
	`target` varchar(64),
	`edit_key` varchar(64) NOT NULL,
	`label` varchar(200) NOT NULL,
	`author` varchar(64) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `edits_id` PRIMARY KEY(`id`),
	CONSTRAINT `edits_by_key` UNIQUE(`system_id`,`edit_key`)
) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;
--> statement-breakpoint
CREATE TABLE `systems` (
	`id` varchar(64) NOT NULL,
	`title` varchar(200) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`changed_at` datetime(3) NOT NULL,
	`removed_at` datetime(3),
	CONSTRAINT `systems_id` PRIMARY KEY(`id`)
) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;
--> statement-breakpoint
CREATE INDEX `edits_by_document` ON `edits` (`system_id`,`path`,`revision`);--> statement-breakpoint
CREATE INDEX `edits_by_system` ON `edits` (`system_id`,`id`);--> statement-breakpoint
CREATE INDEX `edits_by_target` ON `edits` (`system_id`,`target`);--> statement-breakpoint
CREATE INDEX `edits_by_change` ON `edits` (`system_id`,`change_id`);