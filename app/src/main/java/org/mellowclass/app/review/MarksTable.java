package org.mellowclass.app.review;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * One line of the class's marks: a crew's newest hand-in that was marked, or a student of it who was marked alone.
 *
 * @param studentName null for the crew
 * @param points      by criterion; missing where none were given
 */
public record MarksTable(long handInId, String crewName, int number, String studentName, boolean sent, Map<String, Marks.OfClass> points) {

    /** The sum of what was given, and of what could have been. */
    public int sum() {
        return points.values().stream().filter(mark -> mark.points() != null).mapToInt(Marks.OfClass::points).sum();
    }

    public int most() {
        return points.values().stream().mapToInt(Marks.OfClass::mostPoints).sum();
    }

    /** @param all in the order of their crews and hand-ins */
    static List<MarksTable> of(List<Marks.OfClass> all) {
        Map<Long, Integer> newest = new LinkedHashMap<>();
        all.forEach(mark -> newest.merge(mark.crewId(), mark.number(), Math::max));
        Map<String, MarksTable> lines = new LinkedHashMap<>();
        for (Marks.OfClass mark : all) {
            if (newest.get(mark.crewId()) == mark.number()) {
                lines.computeIfAbsent(mark.crewId() + "/" + mark.studentName(), any ->
                        new MarksTable(mark.handInId(), mark.crewName(), mark.number(), mark.studentName(), mark.sentAt() != null, new LinkedHashMap<>())).points.put(mark.criterion(), mark);
            }
        }
        return new ArrayList<>(lines.values());
    }
}
