package org.mellowclass.app.news;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.TemporalAdjusters;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.springframework.context.MessageSource;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What has happened to the episodes of somebody's classes or crew; for teachers by mail too, gathered, as often as each chooses. */
@Service
@Transactional
public class News {

    /** How often news come by mail. */
    public enum Mail { NEVER, DAILY, WEEKLY }

    /** Who has handed in, what was decided, what goes on air, notes and answers, marks, what may be heard early, what went off air because of a voice. */
    public enum Kind { HANDED_IN, ANOTHER_PASS, CLEARED, ON_AIR, NOTE, ANSWER, TO_READ, MARKS, INVITED, TAKEN_BACK, TAKEN_BACK_IN_SCHOOL }

    private static final Duration SHOWN_FOR = Duration.ofDays(30);
    private static final int MOST = 100;
    /** Lessons are over. */
    private static final LocalTime MAIL_TIME = LocalTime.of(16, 0);
    private static final int MOST_MAILED = 25;
    private static final int LONGEST_WORDS = 80;

    private final NewsMapper news;
    private final Access access;
    private final SchoolOffice office;
    private final Outbox outbox;
    private final MessageSource messages;
    private final Clock clock;

    News(NewsMapper news, Access access, SchoolOffice office, Outbox outbox, MessageSource messages, Clock clock) {
        this.news = news;
        this.access = access;
        this.office = office;
        this.outbox = outbox;
        this.messages = messages;
        this.clock = clock;
    }

    /**
     * Something that has happened.
     *
     * @param words what was said with it; may be null
     */
    public record Item(Kind kind, Instant at, String words, String crewName, String title, int number, long episodeId, long handInId) {

        /** Where it is. */
        public String address() {
            return switch (kind) {
                case TAKEN_BACK -> "/episodes/" + episodeId + "/air";
                case TAKEN_BACK_IN_SCHOOL -> "/school";
                case ON_AIR -> "/episodes/" + episodeId + "/hand-ins";
                case INVITED -> "/early/" + handInId;
                default -> "/hand-ins/" + handInId;
            };
        }
    }

    /** @param seenAt until when they were seen before */
    public record Page(List<Item> items, Instant seenAt, Mail mail) {

        public boolean isNew(Item item) {
            return item.at.isAfter(seenAt);
        }
    }

    /** The newest first; they are seen from now on. */
    public Page read(Person viewer) {
        // what happens while they are read is new the next time
        Instant now = clock.instant();
        NewsMapper.Reader reader = news.reader(viewer.id());
        List<Item> items = since(viewer, now.minus(SHOWN_FOR));
        news.seen(viewer.id(), now);
        return new Page(items, reader.seenAt() == null ? Instant.EPOCH : reader.seenAt(), reader.mail());
    }

    /** How many are new. */
    @Transactional(readOnly = true)
    public int unseen(Person viewer) {
        Instant oldest = clock.instant().minus(SHOWN_FOR);
        Instant seenAt = news.reader(viewer.id()).seenAt();
        return since(viewer, seenAt == null || seenAt.isBefore(oldest) ? oldest : seenAt).size();
    }

    private List<Item> since(Person viewer, Instant since) {
        return viewer.isTeacher() ? news.ofTeacher(viewer.id(), since, MOST) : news.ofStudent(viewer.id(), since, clock.instant(), MOST);
    }

    /** How often a teacher gets them by mail; students have no address. */
    public void choose(Person viewer, Mail mail) {
        access.requireTeacher(viewer);
        news.choose(viewer.id(), mail, clock.instant());
    }

    @Transactional(readOnly = true)
    List<NewsMapper.Subscriber> due() {
        return news.subscribers().stream().filter(reader -> isDue(reader.mail(), reader.mailedAt(), clock.instant(), ZoneId.of(reader.timeZone()))).toList();
    }

    /** Whether a time to send has come since the last mail: after lessons each day, or on Fridays. */
    static boolean isDue(Mail mail, Instant mailedAt, Instant now, ZoneId zone) {
        ZonedDateTime last = now.atZone(zone).with(MAIL_TIME);
        if (last.toInstant().isAfter(now)) {
            last = last.minusDays(1);
        }
        if (mail == Mail.WEEKLY) {
            last = last.with(TemporalAdjusters.previousOrSame(DayOfWeek.FRIDAY));
        }
        return mail != Mail.NEVER && (mailedAt == null || mailedAt.isBefore(last.toInstant()));
    }

    /** One mail with all that is new since the last one; none where nothing is. */
    void send(NewsMapper.Subscriber reader) {
        Instant now = clock.instant();
        Instant since = news.holdMailedAt(reader.id()).orElse(now.minus(SHOWN_FOR));
        if (!isDue(reader.mail(), since, now, ZoneId.of(reader.timeZone()))) {
            return;
        }
        List<Item> items = news.ofTeacher(reader.id(), since, MOST);
        news.mailed(reader.id(), now);
        if (!items.isEmpty()) {
            String more = items.size() > MOST_MAILED ? "\nAnd " + (items.size() - MOST_MAILED) + " more." : "";
            outbox.send(office.lead(reader.schoolId()), reader.email(), "News of your classes: " + items.size(),
                    items.stream().limit(MOST_MAILED).map(this::line).collect(Collectors.joining("\n")) + more);
        }
    }

    private String line(Item item) {
        String words = item.words == null || item.words.isEmpty() ? "" : ": " + (item.words.length() <= LONGEST_WORDS ? item.words : item.words.substring(0, LONGEST_WORDS) + "…");
        return messages.getMessage("news." + item.kind, new Object[] {item.crewName, item.title, item.number}, Locale.UK) + words;
    }
}
