-- A mark may be a small picture, which is longer than a line.
ALTER TABLE app_setting MODIFY value LONGTEXT NOT NULL;

-- What a write-up begins with: the lab's own kinds of them.
CREATE TABLE write_up_kind (
  id         BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name       VARCHAR(80)  NOT NULL,
  begins     VARCHAR(16)  NOT NULL,
  pieces     LONGTEXT     NOT NULL,
  revision   INT          NOT NULL,
  changed_by VARCHAR(80)  NOT NULL,
  changed_at DATETIME(3)  NOT NULL,
  removed_at DATETIME(3)  NULL
);

INSERT INTO write_up_kind (name, begins, pieces, revision, changed_by, changed_at) VALUES
  ('Review of a device', 'MODEL', '[{"kind":"TEXT"},{"kind":"FIGURE","figure":"standing"},{"kind":"POINTS"},{"kind":"FACTS"},{"kind":"VERDICT"},{"kind":"METHOD"}]', 1, 'Yarrowmark', UTC_TIMESTAMP(3)),
  ('Against another', 'COMPARISON', '[{"kind":"TEXT"},{"kind":"FIGURE","figure":"ratios"},{"kind":"FIGURE","figure":"standing"},{"kind":"POINTS"},{"kind":"FACTS"},{"kind":"VERDICT"},{"kind":"METHOD"}]', 1, 'Yarrowmark', UTC_TIMESTAMP(3)),
  ('What stands where', 'STANDING', '[{"kind":"TEXT"},{"kind":"FIGURE","figure":"standing"},{"kind":"TABLE","figure":"standing"},{"kind":"VERDICT"}]', 1, 'Yarrowmark', UTC_TIMESTAMP(3)),
  ('What changed over time', 'TREND', '[{"kind":"TEXT"},{"kind":"FIGURE","figure":"trend"},{"kind":"VERDICT"},{"kind":"METHOD"}]', 1, 'Yarrowmark', UTC_TIMESTAMP(3));
