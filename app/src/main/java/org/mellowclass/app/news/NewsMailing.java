package org.mellowclass.app.news;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Sends gathered news when their time has come; what fails for one is tried again, and keeps nobody else waiting. */
@Component
class NewsMailing {

    private static final Logger LOG = LoggerFactory.getLogger(NewsMailing.class);

    private final News news;

    NewsMailing(News news) {
        this.news = news;
    }

    @Scheduled(fixedDelayString = "PT5M", initialDelayString = "PT1M")
    void look() {
        for (NewsMapper.Subscriber reader : news.due()) {
            try {
                news.send(reader);
            } catch (RuntimeException failed) {
                LOG.warn("news for person {} are sent later", reader.id(), failed);
            }
        }
    }
}
