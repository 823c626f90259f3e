import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.openapitools.client.ApiClient;
import org.openapitools.client.ApiResponse;
import org.openapitools.client.api.AccountsApi;
import org.openapitools.client.api.DefinitionsApi;
import org.openapitools.client.api.LedgerApi;
import org.openapitools.client.api.NumbersApi;
import org.openapitools.client.api.RecordsApi;
import org.openapitools.client.api.TablesApi;
import org.openapitools.client.model.Allocation;
import org.openapitools.client.model.AllocationRequest;
import org.openapitools.client.model.AuditRequest;
import org.openapitools.client.model.GrantView;
import org.openapitools.client.model.OpeningRequest;
import org.openapitools.client.model.RangeForm;
import org.openapitools.client.model.SavingRequest;
import org.openapitools.client.model.SeriesForm;
import org.openapitools.client.model.SettleRequest;
import org.openapitools.client.model.TokenRequest;

/** A day's work by the client that a generator made. Arguments: the address, a token, a folder. */
public final class Client {
    public static void main(String[] args) throws Exception {
        Path folder = Path.of(args[2]);
        ApiClient client = new ApiClient().setBasePath(args[0]);
        client.setBearerToken(args[1]);
        AccountsApi accounts = new AccountsApi(client);
        accounts.openAccount(new OpeningRequest()
                .name("java-client")
                .sort(OpeningRequest.SortEnum.PROGRAM)
                .grants(Arrays.stream(GrantView.RightEnum.values())
                        .map(right -> new GrantView().right(right).scope("all"))
                        .toList()));
        String token = accounts.issueToken("java-client", new TokenRequest().name("generated"))
                .getToken();
        client.setBearerToken(token);
        System.out.println("token");

        SeriesForm defined = new DefinitionsApi(client)
                .defineSeries(
                        "java-mark",
                        new SeriesForm()
                                .key("java-mark")
                                .pattern("JM{count 3}")
                                .addRangesItem(new RangeForm().first(1L).last(999L).opens(LocalDate.of(2026, 1, 1))),
                        null,
                        "*");
        System.out.println("defined " + defined.getPattern());

        NumbersApi numbers = new NumbersApi(client);
        AllocationRequest one = new AllocationRequest().date(LocalDate.of(2026, 3, 2)).reference("order 1");
        for (int i = 0; i < 2; i++) {
            ApiResponse<Allocation> taken = numbers.allocateWithHttpInfo("java-mark", "java-1", one);
            System.out.println("allocated " + taken.getStatusCode() + " "
                    + taken.getData().getIdentifiers() + " " + taken.getData().getDate());
        }
        Allocation held = numbers.allocate("java-mark", null, new AllocationRequest().hold("PT15M"));
        SettleRequest second = new SettleRequest().addIdentifiersItem(held.getFirst());
        System.out.println("confirmed " + numbers.confirm("java-mark", second, null).getState().getValue());
        System.out.println(
                "voided " + numbers.voidNumbers("java-mark", second.reason("spoiled"), null).getQuantity());

        LedgerApi ledger = new LedgerApi(client);
        System.out.println("found " + ledger.findIdentifier("jm002", null).get(0).getState().getValue());
        System.out.println(
                "audited " + ledger.audit(new AuditRequest().series("java-mark")).getFindings());

        RecordsApi records = new RecordsApi(client);
        Long record = records.saveRecord(
                        new SavingRequest()
                                .kind("component")
                                .unit("works")
                                .fields(Map.of("name", "Pallet", "group", "WC", "kind", "PA")),
                        "java-2")
                .getRecord()
                .getRecord();
        System.out.println(
                "record " + records.showRecord(record).getRecord().getKind());
        Path up = Files.write(folder.resolve("up.bin"), new byte[] {0, (byte) 0xff, 13, 10, (byte) 0x80});
        records.attachFile(record, "up.bin", "works", null, up.toFile());
        File down = records.fetchFile(record, 1);
        System.out.println("file " + (Files.mismatch(up, down.toPath()) == -1));

        Path table = Files.writeString(folder.resolve("t.csv"), "number,name,group,kind\n,a,WC,PA\n,b,WC,PA\n");
        File filled = new TablesApi(client).fillTable("component", "works", "t.csv", null, null, null, "java-3", table.toFile());
        List<String> rows = Files.readAllLines(filled.toPath());
        System.out.println("table " + rows.get(1).replaceAll("[0-9]{4}", "0000") + " " + rows.size());
        System.exit(0);
    }
}
