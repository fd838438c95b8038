-- Until when somebody has seen the news, and how often they get them by mail.
ALTER TABLE person
  ADD COLUMN news_seen_at   DATETIME(6) NULL,
  ADD COLUMN news_mail      VARCHAR(6)  NOT NULL DEFAULT 'NEVER' CHECK (news_mail IN ('NEVER', 'DAILY', 'WEEKLY')),
  ADD COLUMN news_mailed_at DATETIME(6) NULL;
-- The names of the tracks that a note speaks of, as they were; NULL for the whole.
ALTER TABLE margin_note ADD COLUMN track_names VARCHAR(300) NULL;
