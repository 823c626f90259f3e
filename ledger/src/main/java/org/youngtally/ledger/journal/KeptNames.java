package org.youngtally.ledger.journal;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.lang.reflect.RecordComponent;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.Grant;
import org.youngtally.core.access.Scope;
import org.youngtally.core.access.Token;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.organisation.Condition;
import org.youngtally.core.organisation.Keeping;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import tools.jackson.databind.cfg.MapperConfig;
import tools.jackson.databind.introspect.Annotated;
import tools.jackson.databind.introspect.AnnotatedMember;
import tools.jackson.databind.introspect.AnnotatedParameter;
import tools.jackson.databind.introspect.JacksonAnnotationIntrospector;

/**
 * What the journal calls the components of the records that it keeps: by their places, so that a component that is
 * called otherwise in the code changes nothing of what is kept. A new component gets a name at the end; a name never
 * changes.
 */
final class KeptNames extends JacksonAnnotationIntrospector {
    private static final long serialVersionUID = 1L;

    private static final Map<Class<?>, List<String>> NAMES = Map.ofEntries(
            Map.entry(
                    Unit.class,
                    List.of("key", "title", "below", "code", "zone", "version", "retired", "prefix", "prefixUsers")),
            Map.entry(Kind.class, List.of("key", "title", "fields", "lines", "kept", "version", "retired")),
            Map.entry(
                    KindField.class,
                    List.of("name", "title", "type", "codebook", "within", "required", "nameOf", "codeOf")),
            Map.entry(Keeping.class, List.of("sticky", "knownBy", "agree", "deleting", "datedBy", "lineStep")),
            Map.entry(Route.class, List.of("kind", "unit", "when", "series", "into", "version")),
            Map.entry(KeptLayout.class, List.of("draft", "version")),
            Map.entry(
                    LayoutDraft.class,
                    List.of("key", "title", "width", "height", "resolution", "advance", "sheet", "ask", "items")),
            Map.entry(
                    LayoutDraft.SheetDraft.class,
                    List.of("width", "height", "columns", "rows", "left", "top", "across", "down")),
            Map.entry(LayoutDraft.AskDraft.class, List.of("name", "title")),
            Map.entry(
                    LayoutDraft.ItemDraft.class,
                    List.of(
                            "text",
                            "code",
                            "line",
                            "box",
                            "picture",
                            "left",
                            "top",
                            "width",
                            "height",
                            "size",
                            "align",
                            "turn",
                            "content",
                            "link",
                            "module",
                            "transport",
                            "readable")),
            Map.entry(
                    LabelJob.class,
                    List.of(
                            "layout", "version", "series", "date", "kind", "unit", "fields", "table", "labels", "each",
                            "copies", "printer")),
            Map.entry(Condition.class, List.of("tests")),
            Map.entry(Condition.Test.class, List.of("type", "oneOf", "from", "to")),
            Map.entry(
                    Account.class,
                    List.of("name", "title", "sort", "password", "closed", "grants", "tokens", "version")),
            Map.entry(Grant.class, List.of("right", "scope")),
            Map.entry(Scope.class, List.of("sort", "key")),
            Map.entry(Token.class, List.of("id", "name", "hash", "issued", "expires", "revoked")),
            Map.entry(
                    KeptRecord.class,
                    List.of(
                            "id",
                            "kind",
                            "number",
                            "standings",
                            "lines",
                            "lastLine",
                            "fixed",
                            "deleted",
                            "files",
                            "version")),
            Map.entry(KeptRecord.Numbered.class, List.of("series", "text", "into")),
            Map.entry(KeptRecord.UnitValues.class, List.of("unit", "values")),
            Map.entry(KeptRecord.Line.class, List.of("number", "values")),
            Map.entry(KeptRecord.Attached.class, List.of("ending", "size", "digest")));

    /**
     * Components that later releases added, and that journals of earlier ones lack: left out where they say nothing.
     */
    private static final Set<String> LATER = Set.of("retired", "prefixUsers");

    @Override
    public JsonInclude.Value findPropertyInclusion(MapperConfig<?> config, Annotated member) {
        return member instanceof AnnotatedMember field
                        && field.getDeclaringClass().isRecord()
                        && LATER.contains(field.getName())
                ? JsonInclude.Value.construct(JsonInclude.Include.NON_DEFAULT, JsonInclude.Include.ALWAYS)
                : super.findPropertyInclusion(config, member);
    }

    @Override
    public String findImplicitPropertyName(MapperConfig<?> config, AnnotatedMember member) {
        Class<?> owner = member.getDeclaringClass();
        if (!owner.isRecord()) return super.findImplicitPropertyName(config, member);
        RecordComponent[] components = owner.getRecordComponents();
        List<String> names = NAMES.get(owner);
        if (names == null || names.size() != components.length)
            throw new IllegalStateException("nothing says what the journal calls the components of " + owner);
        if (member instanceof AnnotatedParameter parameter) return names.get(parameter.getIndex());
        for (int i = 0; i < components.length; i++)
            if (components[i].getName().equals(member.getName())) return names.get(i);
        return null;
    }
}
