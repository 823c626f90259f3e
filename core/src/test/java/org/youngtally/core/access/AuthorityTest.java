package org.youngtally.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.MemoryLedger;
import org.youngtally.core.organisation.Larkmoor;
import org.youngtally.core.organisation.Organisation;

class AuthorityTest {
    private static final Organisation ORGANISATION = organisation();
    private static final Authority AUTHORITY = new Authority(ORGANISATION);

    private static Organisation organisation() {
        var ledger = new MemoryLedger();
        ledger.perform(new Act.Define(Larkmoor.drafts(), List.of(), Optional.empty()));
        return ledger.state().organisation();
    }

    private static Account with(Grant... grants) {
        return new Account("a", "A", Account.Sort.PERSON, Optional.empty(), false, List.of(grants), List.of(), 1);
    }

    private static Where place(String text) {
        var parts = new HashMap<String, String>();
        for (String part : text.isEmpty() ? new String[0] : text.split(","))
            parts.put(part.strip().split(" ")[0], part.strip().split(" ")[1]);
        return new Where(
                Optional.ofNullable(parts.get("series")),
                Optional.ofNullable(parts.get("kind")),
                Optional.ofNullable(parts.get("unit")));
    }

    /**
     * invoice-works is routed from works, invoice-care and school from care, customer from the group; school and
     * customer number customers.
     */
    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
            all            ; allocate ; ''                              ; true
            series customer; allocate ; series customer                 ; true
            series customer; allocate ; series customer, unit care      ; true
            series customer; allocate ; series school                   ; false
            series customer; allocate ; ''                              ; false
            unit works     ; allocate ; series invoice-works            ; true
            unit group     ; allocate ; series invoice-works            ; true
            unit bench     ; allocate ; series invoice-works            ; false
            unit bench     ; allocate ; series invoice-works, unit bench; true
            unit works     ; allocate ; series invoice-works, unit bench; true
            unit bench     ; allocate ; series invoice-works, unit works; false
            unit works     ; allocate ; series invoice-care             ; false
            unit works     ; allocate ; series invoice-care, unit works ; false
            unit care      ; allocate ; series customer                 ; false
            unit care      ; allocate ; series customer, unit care      ; true
            unit care      ; allocate ; series customer, unit works     ; false
            unit care      ; read     ; series customer                 ; true
            unit care      ; read     ; series invoice-works            ; false
            unit bench     ; read     ; series invoice-works            ; true
            unit care      ; define   ; kind customer, unit care        ; true
            unit care      ; define   ; kind customer                   ; false
            unit care      ; define   ; ''                              ; false
            kind customer  ; allocate ; series school                   ; true
            kind customer  ; allocate ; kind customer, unit works       ; true
            kind customer  ; allocate ; series customer, kind customer, unit works; true
            kind customer  ; allocate ; series invoice-works, kind customer       ; false
            kind customer  ; allocate ; series invoice-works            ; false
            kind customer  ; read     ; series school                   ; true
            """)
    void aGrantCoversItsPlacesAndNoOthers(String scope, String right, String where, boolean covered) {
        Right wanted = Right.of(right).orElseThrow();
        assertThat(AUTHORITY.may(with(new Grant(wanted, Scope.of(scope).orElseThrow())), wanted, place(where)))
                .isEqualTo(covered);
    }

    @Test
    void noRightHoldsAnother() {
        for (Right given : Right.values())
            for (Right wanted : Right.values())
                assertThat(AUTHORITY.may(with(new Grant(given, Scope.ALL)), wanted, Where.EVERYWHERE))
                        .isEqualTo(given == wanted);
    }

    @Test
    void aClosedAccountMayNothing() {
        Account closed = with(new Grant(Right.READ, Scope.ALL)).withClosed(true);
        assertThat(AUTHORITY.may(closed, Right.READ, Where.series("customer"))).isFalse();
        assertThat(AUTHORITY.mayAnywhere(closed, Right.READ)).isFalse();
    }

    @Test
    void whatWouldDoCoversThePlace() {
        Where place = place("series customer, kind customer, unit care");
        assertThat(AUTHORITY.wouldDo(Right.ALLOCATE, place))
                .extracting(Scope::toString)
                .containsExactly("series customer", "unit care", "unit group", "kind customer", "all");
        for (Scope scope : AUTHORITY.wouldDo(Right.ALLOCATE, place))
            assertThat(AUTHORITY.may(with(new Grant(Right.ALLOCATE, scope)), Right.ALLOCATE, place))
                    .isTrue();
    }

    @ParameterizedTest
    @CsvSource({
        "unit bench, unit works, true",
        "unit works, unit bench, false",
        "all, unit group, false",
        "series school, unit care, true",
        "series customer, unit care, false",
        "series school, kind customer, true",
        "kind customer, unit group, false",
        "series school, all, true"
    })
    void whoManagesAPlaceGivesGrantsInsideIt(String scope, String outer, boolean within) {
        assertThat(AUTHORITY.mayManage(
                        with(new Grant(Right.ACCESS, Scope.of(outer).orElseThrow())),
                        Scope.of(scope).orElseThrow()))
                .isEqualTo(within);
    }
}
