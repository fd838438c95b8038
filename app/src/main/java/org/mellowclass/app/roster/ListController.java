package org.mellowclass.app.roster;

import java.io.IOException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.web.Refusal;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;

/** Brings a list of students in: pasted, as CSV or as a OneRoster set; looked at first, then written. */
@Controller
class ListController {

    private static final int LARGEST_LIST = 500_000;
    private static final long LARGEST_SET = 20L << 20;

    private static final String SAYS_NOTHING = "NOTHING";

    private final Access access;
    private final Roster roster;

    ListController(Access access, Roster roster) {
        this.access = access;
        this.roster = roster;
    }

    @GetMapping("/classes/{classId}/roster")
    String importPage(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        return "roster/import";
    }

    /** Shows what importing a list would do. */
    @PostMapping("/classes/{classId}/roster")
    String preview(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(required = false) MultipartFile file,
                   @RequestParam(defaultValue = "") String list, @RequestParam Map<String, String> fields, Model model) throws IOException {
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        model.addAttribute("list", list);
        try {
            if (file != null && !file.isEmpty() && file.getSize() <= LARGEST_SET && OneRoster.isZip(file.getBytes())) {
                return chosen(OneRoster.read(file.getBytes()), viewer, classId, fields, model);
            }
            if (file != null && file.getSize() > LARGEST_LIST || list.length() > LARGEST_LIST) {
                throw Refusal.unfit("roster.TOO_LARGE");
            }
            String text = file != null && !file.isEmpty() ? RosterReader.decode(file.getBytes()) : list;
            if (text.isBlank()) {
                model.addAttribute("nothing", true);
                return "roster/import";
            }
            return show(roster.plan(viewer, classId, text, answers(fields)), text, fields, model);
        } catch (Refusal refusal) {
            model.addAttribute("refused", refusal);
            return "roster/import";
        }
    }

    /** Of a set with several classes it is asked which of them is meant. */
    private String chosen(List<OneRoster.OfClass> classes, Person viewer, long classId, Map<String, String> fields, Model model) {
        if (classes.size() > 1) {
            model.addAttribute("ofSet", classes);
            return "roster/import";
        }
        String list = classes.get(0).list();
        return show(roster.plan(viewer, classId, list, answers(fields)), list, fields, model);
    }

    @PostMapping("/classes/{classId}/roster/confirm")
    String confirm(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(defaultValue = "") String list,
                   @RequestParam Map<String, String> fields, Model model) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        RosterPlan plan = roster.plan(viewer, classId, list, answers(fields));
        if (!plan.clear()) {
            model.addAttribute("schoolClass", schoolClass);
            model.addAttribute("unanswered", true);
            return show(plan, list, fields, model);
        }
        roster.importList(viewer, classId, list, answers(fields), fields.getOrDefault("saidBy", ""));
        return "redirect:/classes/" + classId + "/crews";
    }

    private static String show(RosterPlan plan, String list, Map<String, String> fields, Model model) {
        Map<String, String> words = new LinkedHashMap<>();
        answers(fields).means().forEach((word, meaning) -> words.put(word, meaning.map(Consent::name).orElse(SAYS_NOTHING)));
        plan.unclear().forEach(word -> words.putIfAbsent(word, ""));
        model.addAttribute("words", words);
        model.addAttribute("tellsConsents", !words.isEmpty() || plan.lines().stream().anyMatch(line -> line.entry() != null && line.entry().consent() != null));
        model.addAttribute("saidBy", fields.getOrDefault("saidBy", ""));
        model.addAttribute("list", list);
        Map<String, Long> counts = new HashMap<>();
        for (RosterPlan.Kind kind : RosterPlan.Kind.values()) {
            counts.put(kind.name(), plan.count(kind));
        }
        model.addAttribute("plan", plan);
        model.addAttribute("consents", Consent.values());
        model.addAttribute("counts", counts);
        return "roster/import";
    }

    /**
     * The fields {@code who-LINE}: a student's id, 0 for somebody new; and, for words of the list that mean a consent, {@code word-N} with {@code means-N}.
     * Empty where there is no answer yet.
     */
    private static RosterPlan.Answers answers(Map<String, String> fields) {
        Map<Integer, Long> who = new HashMap<>();
        Map<String, Optional<Consent>> means = new HashMap<>();
        fields.forEach((name, value) -> {
            if (name.matches("who-\\d{1,6}") && value.matches("\\d{1,18}")) {
                who.put(Integer.parseInt(name.substring("who-".length())), Long.parseLong(value));
            }
            String meaning = name.matches("word-\\d{1,3}") ? fields.getOrDefault("means-" + name.substring("word-".length()), "") : "";
            if (meaning.equals(SAYS_NOTHING)) {
                means.put(RosterPlan.key(value), Optional.empty());
            } else if (!meaning.isEmpty()) {
                Arrays.stream(Consent.values()).filter(consent -> consent.name().equals(meaning)).findFirst().ifPresent(consent -> means.put(RosterPlan.key(value), Optional.of(consent)));
            }
        });
        return new RosterPlan.Answers(who, means);
    }
}
