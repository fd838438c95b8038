package org.mellowclass.app.roster;

import java.time.Instant;

import org.mellowclass.app.people.Consent;

/**
 * A student of a class, as their teacher sees them.
 *
 * @param number          the school's own; empty if there is none
 * @param onAirName       what listeners may read: never a surname
 * @param freshPassphrase readable until it is first used; then null
 * @param home            whether this class makes their passphrase
 * @param crewId          their crew in this class, or null
 * @param consent         null as long as nobody has recorded one
 * @param consentSaidBy   who in the family agreed; empty if that was not written down
 * @param consentBy       who wrote it down
 */
public record Student(long id, String name, String number, String onAirName, String freshPassphrase, boolean home, Long crewId, String crewName,
                      Consent consent, String consentSaidBy, String consentBy, Instant consentAt) {
}
