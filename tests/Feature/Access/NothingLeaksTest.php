<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Models\Role;
use App\Models\Tally;
use Illuminate\Support\Facades\File;
use NineTally\Core\Plan\CanonicalJson;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Tests\Support\Addresses;
use Tests\TestCase;

/**
 * A value that somebody may not see is planted wherever values can stand, and then every address is asked, by everybody to whom it is
 * masked: also those that nobody had in mind when this was written.
 */
final class NothingLeaksTest extends TestCase
{
    use Addresses;

    private const SECRET = 'Thornoy';

    /** Where steps divide a value, its parts are looked for too. */
    private const PARTS = '/thornoy|thorn|yonroht/i';

    public function test_a_masked_value_is_in_no_answer_and_in_no_log(): void
    {
        $tally = $this->planted();
        File::cleanDirectory(storage_path('logs'));
        $asked = 0;
        // One who may never see them, and one who may and has not asked.
        foreach ([Role::Auditor, Role::Analyst] as $role) {
            $person = $this->person("Some {$role->value}");
            $this->migration->memberships()->create(['user_id' => $person->id, 'role' => $role]);
            $this->actingAs($person->refresh());
            foreach ($this->addresses() as [$method, $uri]) {
                foreach ($this->requestsFor($method, $uri, $tally) as [$method, $path, $body]) {
                    $response = $this->json($method, "/{$path}", $body);
                    $content = (string) ($response->baseResponse instanceof StreamedResponse
                        ? $response->streamedContent()
                        : $response->getContent());
                    self::assertNotSame(500, $response->getStatusCode(), "{$method} {$path}, to the {$role->value}: {$content}");
                    self::assertSame(
                        0,
                        preg_match(self::PARTS, $content, $found),
                        "{$method} {$path}, to the {$role->value}: …".
                            substr($content, max(0, (int) stripos($content, $found[0] ?? '') - 300), 400).'…',
                    );
                    $asked += $response->isSuccessful() ? 1 : 0;
                }
            }
        }

        self::assertGreaterThan(110, $asked, 'Most of it was answered.');
        foreach (File::allFiles(storage_path('logs')) as $log) {
            self::assertSame(0, preg_match(self::PARTS, $log->getContents()), $log->getFilename());
        }
    }

    public function test_a_plan_whose_values_are_masked_is_saved_as_it_was(): void
    {
        $this->planted();
        $kept = $this->draft();
        /** @var array{columnPairs: list<array<string, mixed>>, sides: array<string, mixed>} $shown */
        $shown = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->json('draft');

        $path = "/datasets/{$this->dataset->id}/plan";
        $this->api('PUT', $path, $shown)->assertOk();
        self::assertSame($kept, $this->draft());

        // What is masked in a crosswalk of one column would be read in that of another.
        $shown['columnPairs'][1]['crosswalk'] = $shown['columnPairs'][0]['crosswalk'];
        $this->api('PUT', $path, $shown)->assertForbidden();
        self::assertSame($kept, $this->draft());
    }

    /** @phpstan-impure */
    private function draft(): string
    {
        return CanonicalJson::of($this->dataset->draft()->firstOrFail()->document);
    }

    /** Secrets in cells, keys that are refused, literals of steps and conditions, crosswalks, bridges, demands, and a file that waits. */
    private function planted(): Tally
    {
        [$old, $new] = ["basin,berth,holder_name,fee\n", "basin,berth,owner,fee,initial,greeting\n"];
        foreach (range(1, 30) as $row) {
            $secret = self::SECRET." {$row}";
            $old .= "KB,{$row},{$secret},".($row * 3)."\n";
            $new .= "KB,{$row},".strtoupper($secret).','.($row * 3 + $row % 2).",T,x\n";
        }
        $old .= 'LM,1,'.self::SECRET." lone,1\nLM,2,".self::SECRET.",1,too many\n";
        $this->actingAs($this->analyst);
        $this->deliver('source', $old);
        $this->deliver('target', $new);
        $plan = [
            'key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [
                [
                    'source' => 'holder',
                    'target' => 'owner',
                    'crosswalk' => [
                        ['source' => self::SECRET.' 3', 'target' => strtoupper(self::SECRET.' 3')],
                        ['source' => self::SECRET.' 4', 'target' => strtoupper(self::SECRET.' 4')],
                    ],
                ],
                ['source' => 'fee', 'target' => 'fee'],
                ['source' => 'first', 'target' => 'initial'],
                ['source' => 'line', 'target' => 'greeting'],
            ],
            'leftOut' => ['source' => ['rest'], 'target' => []],
            'sensitive' => ['source' => ['holder']],
            'demands' => ['owner' => ['allowed' => [self::SECRET.' 1']]],
            'sides' => ['source' => ['preparation' => [
                ['id' => 'a1', 'kind' => 'rename-columns', 'names' => [['from' => 'holder_name', 'to' => 'holder']]],
                [
                    'id' => 'a2',
                    'kind' => 'leave-out-rows',
                    'condition' => ['column' => 'holder', 'test' => 'is', 'value' => self::SECRET.' 7'],
                    'reason' => 'as '.self::SECRET.' asked',
                ],
                [
                    'id' => 'a3', 'kind' => 'split-column', 'column' => 'holder', 'into' => ['first', 'rest'], 'keep' => true,
                    'lengths' => [5],
                ],
                ['id' => 'a4', 'kind' => 'compute-column', 'into' => 'line', 'formula' => 'holder ~ " of '.self::SECRET.'"'],
            ]]],
        ];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $plan)->assertOk()->assertJson(['problems' => []]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [...$plan, 'demands' => []])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $plan)->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/prepared-sides", ['side' => 'source']);
        $this->api('POST', "/datasets/{$this->dataset->id}/starting-plans", ['name' => 'Registers']);
        $tally = $this->dataset->latestTally() ?? self::fail('There is a tally.');
        $this->api('POST', "/tallies/{$tally->id}/report-orders")->assertAccepted();
        $this->received('waiting.csv', "basin,berth,holder_name,fee\nKB,1,".self::SECRET.",2\nTOTAL,,".self::SECRET.",1\n");

        return $tally;
    }

    /** @return iterable<array{string, string, array<string, mixed>}> */
    private function requestsFor(string $method, string $uri, Tally $tally): iterable
    {
        // What changes something is left to other tests, but for what answers with rows.
        if ($method !== 'GET' && ! isset(self::BODIES[substr($uri, 7)])) {
            return;
        }
        foreach (str_contains($uri, '{number}') ? ['1', '2', '3'] : [''] as $number) {
            foreach (['', ...self::QUERIES[substr($uri, 7)] ?? []] as $query) {
                $path = $this->filled(str_replace('{number}', $number, $uri), $tally);
                yield [$method, $path.($query === '' ? '' : "?{$query}"), self::BODIES[substr($uri, 7)] ?? []];
            }
        }
    }

    private const QUERIES = [
        'datasets/{dataset}/receipts' => ['side=source'],
        'deliveries/{delivery}/rows' => [
            'column=fee&is=value&value=3',
            'column=holder_name&is=blank',
            'column=holder_name&is=value&value=x',
        ],
        'datasets/{dataset}/left-out-rows' => ['side=source&step=a2'],
        'datasets/{dataset}/prepared-rows' => ['side=source', 'side=source&as=json-lines', 'side=target'],
        'datasets/{dataset}/row-lists/file' => ['asked={"which":"all","by":["basin"],"columns":["holder","line"]}'],
        'tallies/{tally}/findings' => [
            'of=cells', 'class=refused', 'pattern=1', 'pattern=2&beside[]=holder', 'class=missing&beside[]=rest', 'beside[]=line',
        ],
        'tallies/{tally}/findings/taken' => ['as=csv', 'as=json-lines&of=cells', 'class=refused'],
        'tallies/{tally}/agreeing-row' => ['key[]=KB&key[]=3'],
        'tallies/{tally}/keys' => ['beginning=KB'],
        'tallies/{tally}/comments' => ['kind=row&target=1'],
    ];

    private const BODIES = [
        'deliveries/{delivery}/combinations' => ['columns' => ['basin', 'holder_name']],
        'deliveries/{delivery}/rows-sharing' => ['columns' => ['basin', 'berth'], 'cells' => ['KB', '3']],
        'datasets/{dataset}/preparation-trials' => ['side' => 'source', 'preparation' => [
            ['id' => 'b1', 'kind' => 'join-columns', 'columns' => ['berth', 'holder_name'], 'with' => ' ', 'into' => 'both'],
            ['id' => 'b2', 'kind' => 'rename-columns', 'names' => [['from' => 'holder_name', 'to' => 'name']]],
        ], 'chosen' => 'b1'],
        'datasets/{dataset}/key-counts' => ['key' => [['source' => 'basin', 'target' => 'basin']]],
        'datasets/{dataset}/row-lists' => ['which' => 'all', 'columns' => ['holder', 'first', 'rest', 'line', 'berth', 'fee']],
        'datasets/{dataset}/repeat-looks' => ['columns' => ['basin'], 'parts' => [['column' => 'fee', 'part' => 'start', 'length' => 1]]],
        'datasets/{dataset}/policy-trials' => [],
        'datasets/{dataset}/near-values' => ['column' => 'fee', 'equal' => ['berth'], 'alike' => ['basin']],
    ];
}
