package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.text.NearestName;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.body.Takes;
import org.youngtally.service.starter.Starter;
import org.youngtally.service.web.Problem;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Starter sets: files of definitions with variables, to be filled in for a new company. */
@RestController
@RequestMapping(Api.V1 + "/starters")
class StarterController {
    private final List<Starter> starters;

    private final HeavyWork work;

    StarterController(HeavyWork work) throws IOException {
        this.work = work;
        var read = new ArrayList<Starter>();
        for (Resource file : new PathMatchingResourcePatternResolver().getResources("classpath*:/starters/*.yaml"))
            read.add(Starter.read(file.getContentAsString(StandardCharsets.UTF_8)));
        read.sort(Comparator.comparing(Starter::name));
        starters = List.copyOf(read);
    }

    /** @param definitions the text, with the variables in it */
    record StarterView(String name, String title, List<VariableView> variables, String definitions) {
        static StarterView of(Starter starter) {
            return new StarterView(
                    starter.name(),
                    starter.title(),
                    starter.variables().stream()
                            .map(variable -> new VariableView(
                                    variable.name(), variable.meaning(), variable.shape(), variable.example()))
                            .toList(),
                    starter.definitions());
        }
    }

    /** @param shape a regular expression that a value matches as a whole */
    record VariableView(String name, String meaning, String shape, String example) {}

    @GetMapping
    @SignedIn
    @Operation(operationId = "listStarters", summary = "The starter sets that come with the service")
    List<StarterView> list() {
        return starters.stream().map(StarterView::of).toList();
    }

    @GetMapping("/{name}")
    @SignedIn
    @Operation(operationId = "showStarter", summary = "One starter set")
    StarterView show(@PathVariable String name) {
        return StarterView.of(starter(name));
    }

    private Starter starter(String name) {
        List<String> names = starters.stream().map(Starter::name).toList();
        return starters.stream()
                .filter(starter -> starter.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new Problem(
                                Problem.Type.UNKNOWN_STARTER,
                                "Starter set ‘" + name + "’ not found."
                                        + NearestName.to(name, names)
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("name", String.join(", ", names)));
    }

    /**
     * @param name of a set that comes with the service; or
     * @param text of one's own
     * @param variables the value of each
     */
    record FillingRequest(@Nullable String name, @Nullable String text, Map<String, String> variables) {}

    /**
     * @param name that the file would have
     * @param text the definitions with every variable filled in, to be applied or edited first
     */
    record FillingView(String name, String text) {}

    @Takes(Takes.A_LIST)
    @PostMapping("/fillings")
    @Needs(value = Right.DEFINE, at = At.SOMEWHERE)
    @Operation(
            operationId = "fillStarter",
            summary = "Fill in a starter set: a file of definitions, which is not applied by this")
    FillingView fill(@RequestBody FillingRequest request, Caller caller) {
        return work.run(
                Sort.PROOF,
                caller.name(),
                () -> filled(request, caller.snapshot().organisation().kinds().keySet()));
    }

    private FillingView filled(FillingRequest request, Set<String> kinds) {
        if ((request.name() == null) == (request.text() == null))
            throw new Problem(Problem.Type.MALFORMED, "No starter set is named, or two are.")
                    .field("name", "the name of a starter set, or the text of one");
        Starter starter = request.name() != null ? starter(request.name()) : Starter.read(request.text());
        String filled = starter.filled(request.variables(), kinds);
        String first = starter.variables().isEmpty()
                ? ""
                : "-" + request.variables().get(starter.variables().getFirst().name());
        return new FillingView((starter.name() + first).replaceAll("[^A-Za-z0-9.-]", "-") + ".yaml", filled);
    }
}
