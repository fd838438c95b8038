package org.mellowclass.app.outbox;

import java.time.Clock;
import java.time.Instant;
import java.util.List;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.NotFound;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The shipped stand-in for mail: keeps what would have been sent, for teachers of the school to read. */
@Service
@Transactional
public class Outbox {

    private static final int SHOWN = 100;

    private final MailMapper mails;
    private final Clock clock;

    Outbox(MailMapper mails, Clock clock) {
        this.mails = mails;
        this.clock = clock;
    }

    public record Mail(String recipient, String subject, String body, Instant sentAt) {

        public List<String> lines() {
            return body.lines().toList();
        }
    }

    @Mapper
    interface MailMapper {

        @Insert("""
                INSERT INTO mail (school_id, sender_id, recipient, subject, body, sent_at)
                VALUES (#{schoolId}, #{senderId}, #{mail.recipient}, #{mail.subject}, #{mail.body}, #{mail.sentAt})
                """)
        void add(long schoolId, long senderId, Mail mail);

        @Select("""
                SELECT recipient, subject, body, sent_at FROM mail WHERE sender_id = #{senderId}
                ORDER BY id DESC LIMIT #{most}
                """)
        List<Mail> newestOf(long senderId, int most);
    }

    public void send(Person sender, String recipient, String subject, String body) {
        mails.add(sender.schoolId(), sender.id(), new Mail(recipient, subject, body, clock.instant()));
    }

    /** What a teacher has sent, the newest first. */
    @Transactional(readOnly = true)
    public List<Mail> sentBy(Person viewer) {
        if (!viewer.isTeacher()) {
            throw new NotFound();
        }
        return mails.newestOf(viewer.id(), SHOWN);
    }
}
