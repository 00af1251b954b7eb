CREATE TABLE IF NOT EXISTS `changes` (
	`system_id` varchar(64) NOT NULL,
	`id` varchar(64) NOT NULL,
	`author` varchar(64) NOT NULL,
	`label` varchar(200) NOT NULL,
	`at` datetime(3) NOT NULL,
	`made` bigint NOT NULL,
	`state` varchar(8) NOT NULL,
	`act` varchar(64),
	`position` bigint NOT NULL,
	`holder` varchar(64),
	CONSTRAINT `changes_system_id_id_pk` PRIMARY KEY(`system_id`,`id`),
	INDEX `changes_by_holder` (`system_id`,`holder`,`state`,`position`),
	INDEX `changes_by_author` (`system_id`,`author`,`made`),
	INDEX `changes_in_order` (`system_id`,`made`)
) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;
--> statement-breakpoint
ALTER TABLE `systems` ADD COLUMN IF NOT EXISTS `last_edit` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE `systems` SET `last_edit` = (SELECT COALESCE(MAX(`edits`.`id`), 0) FROM `edits` WHERE `edits`.`system_id` = `systems`.`id`);--> statement-breakpoint
-- What was done before inverses said what they rely on is listed, but cannot be taken back.
INSERT IGNORE INTO `changes` (`system_id`, `id`, `author`, `label`, `at`, `made`, `state`, `act`, `position`, `holder`)
SELECT `system_id`, `change_id`, MIN(`author`), MIN(`label`), MAX(`at`), MAX(`id`),
	COALESCE((SELECT IF(`step`.`kind` = 'undo', 'undone', 'done') FROM `edits` `step`
		WHERE `step`.`system_id` = `made`.`system_id` AND `step`.`target` = `made`.`change_id` ORDER BY `step`.`id` DESC LIMIT 1), 'done'),
	NULL, MAX(`id`), NULL
FROM `edits` `made` WHERE `kind` = 'edit' GROUP BY `system_id`, `change_id`;--> statement-breakpoint
ALTER TABLE `edits` MODIFY `id` bigint NOT NULL, DROP PRIMARY KEY, ADD PRIMARY KEY (`system_id`, `id`),
	DROP INDEX IF EXISTS `edits_by_system`, DROP INDEX IF EXISTS `edits_by_target`;
