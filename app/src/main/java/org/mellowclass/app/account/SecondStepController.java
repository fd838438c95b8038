package org.mellowclass.app.account;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import jakarta.servlet.http.HttpSession;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.ProvenLately;
import org.mellowclass.app.people.SecondStep;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.web.Refusal;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Where a teacher sets the second step of their sign-in, and ends it. */
@Controller
class SecondStepController {

    private static final String OFFERED = "offeredSecret";

    private final Access access;
    private final SecondStep secondStep;
    private final SecurityLog log;

    SecondStepController(Access access, SecondStep secondStep, SecurityLog log) {
        this.access = access;
        this.secondStep = secondStep;
        this.log = log;
    }

    /** The secret is offered until it is set: looking again shows the same one. */
    @ProvenLately
    @GetMapping("/account/second-step")
    String page(@AuthenticationPrincipal Person viewer, HttpSession session, Model model) {
        access.requireTeacher(viewer);
        if (!(session.getAttribute(OFFERED) instanceof String)) {
            session.setAttribute(OFFERED, secondStep.offer());
        }
        String secret = (String) session.getAttribute(OFFERED);
        model.addAttribute("secret", secret.replaceAll("(.{4})", "$1 ").strip());
        BitMatrix picture = picture("otpauth://totp/Mellow%20Class:" + encoded(viewer.name()) + "?secret=" + secret + "&issuer=Mellow%20Class");
        model.addAttribute("side", picture.getWidth());
        model.addAttribute("squares", squares(picture));
        return "account/second-step";
    }

    @ProvenLately
    @PostMapping("/account/second-step")
    String set(@AuthenticationPrincipal Person viewer, HttpSession session, @RequestParam(defaultValue = "") String code, Model model) {
        access.requireTeacher(viewer);
        Optional<String> offKey = session.getAttribute(OFFERED) instanceof String secret ? secondStep.set(viewer, secret, code) : Optional.empty();
        if (offKey.isEmpty()) {
            throw Refusal.unfit("account.CODE");
        }
        session.removeAttribute(OFFERED);
        log.note(viewer.schoolId(), SecurityLog.Kind.SECOND_STEP, viewer.id(), null, "on");
        model.addAttribute("offKey", offKey.get().replaceAll("(.{4})", "$1 ").strip());
        return "account/second-step-set";
    }

    @ProvenLately
    @PostMapping("/account/second-step/end")
    String end(@AuthenticationPrincipal Person viewer) {
        access.requireTeacher(viewer);
        secondStep.end(viewer);
        log.note(viewer.schoolId(), SecurityLog.Kind.SECOND_STEP, viewer.id(), null, "off");
        return "redirect:/account";
    }

    private static String encoded(String name) {
        return URLEncoder.encode(name, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private static BitMatrix picture(String text) {
        try {
            return new QRCodeWriter().encode(text, BarcodeFormat.QR_CODE, 0, 0, Map.of(EncodeHintType.MARGIN, 4));
        } catch (WriterException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The dark squares as an SVG path, a unit each. */
    private static String squares(BitMatrix picture) {
        StringBuilder path = new StringBuilder();
        for (int y = 0; y < picture.getHeight(); y++) {
            for (int x = 0; x < picture.getWidth(); x++) {
                if (picture.get(x, y)) {
                    path.append('M').append(x).append(' ').append(y).append("h1v1h-1z");
                }
            }
        }
        return path.toString();
    }
}
