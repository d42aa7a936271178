<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Role;
use App\Models\Tally;
use App\Models\User;
use App\Queries\Review\Mask;
use Tests\TestCase;

/** Values of sensitive columns: who sees them, and what is on record. */
final class MaskTest extends TestCase
{
    private const SECRET = 'Thornøy';

    public function test_a_masked_value_is_in_no_answer_of_any_kind(): void
    {
        $tally = $this->withSensitiveHolder();
        $this->api('POST', "/datasets/{$this->dataset->id}/kept-filters", [
            'name' => 'Of one holder',
            'filter' => ['source' => self::SECRET],
        ])->assertCreated();
        $this->api('POST', "/datasets/{$this->dataset->id}/unmaskings")->assertCreated();
        [$pattern, $fee] = [$this->patternOf($tally, 'holder'), $this->patternOf($tally, 'fee')];
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'pattern',
            'target' => (string) $pattern,
            'decision' => 'expected',
            'reason' => 'as agreed',
            'holdsFor' => [['source' => self::SECRET.' 1', 'target' => mb_strtoupper(self::SECRET.' 1')]],
            'seenAct' => 0,
        ])->assertCreated();
        $paths = [
            "/tallies/{$tally->id}",
            "/tallies/{$tally->id}/findings?limit=200",
            "/tallies/{$tally->id}/findings?of=cells",
            "/tallies/{$tally->id}/findings?pattern={$fee}&beside[]=holder",
            "/tallies/{$tally->id}/findings?pattern={$fee}&beside[]=owner",
            "/tallies/{$tally->id}/records/1",
            "/tallies/{$tally->id}/agreeing-row?key[]=KB&key[]=3",
            "/tallies/{$tally->id}/patterns/{$pattern}/value-pairs",
            "/tallies/{$tally->id}/rulings",
            "/datasets/{$this->dataset->id}/kept-filters",
            "/tallies/{$tally->id}/findings/taken?as=csv",
            "/tallies/{$tally->id}/findings/taken?as=json-lines&of=cells",
            "/tallies/{$tally->id}/findings/taken?class=refused",
        ];
        $others = [
            "/datasets/{$this->dataset->id}/profile",
            "/datasets/{$this->dataset->id}/plan",
            "/datasets/{$this->dataset->id}/trial",
            '/deliveries/1/rows?column=fee&is=value&value=1',
            '/deliveries/1/refused',
            "/tallies/{$tally->id}/folder",
            "/datasets/{$this->dataset->id}/prepared-rows?side=source&as=csv",
        ];
        $secrets = static fn(string $content): int => (int) preg_match_all('/thorn(ø|\\\\u00[df]8)y/iu', $content);

        $this->actingAs($this->auditor());
        foreach ($paths as $path) {
            self::assertSame(0, $secrets($this->content($path, 200)), "{$path}, to an auditor");
        }
        foreach ($others as $path) {
            self::assertSame(0, $secrets($this->content($path, str_ends_with($path, 'folder') ? 403 : 200)), "{$path}, to an auditor");
        }
        self::assertSame(0, $secrets($this->content("/tallies/{$tally->id}/report", 200)));
        $this->api('POST', "/datasets/{$this->dataset->id}/unmaskings")->assertForbidden();

        $this->actingAs($this->analyst);
        foreach ($paths as $path) {
            self::assertGreaterThan(0, $secrets($this->content($path, 200)), "{$path}, to whom the values are shown");
        }
        // A report goes into many hands: it is masked whoever looks at it.
        self::assertSame(0, $secrets($this->content("/tallies/{$tally->id}/report", 200)));
    }

    public function test_what_is_masked_cannot_be_found_out_by_asking(): void
    {
        $tally = $this->withSensitiveHolder();
        $ask = fn(string $filter): int => $this->api('GET', "/tallies/{$tally->id}/findings/count?{$filter}")->getStatusCode();
        $pattern = $this->patternOf($tally, 'holder');

        self::assertSame(
            [403, 403, 403, 403],
            array_map($ask, ['column=holder&value=x', 'text=Thorn', 'of=cells&source=Thorn%C3%B8y%201', "pattern={$pattern}&target=x"]),
        );
        self::assertSame([200, 200], array_map($ask, ['pattern='.$this->patternOf($tally, 'fee').'&source=1', 'key=7&keyColumn=2']));
        $this->api('GET', "/tallies/{$tally->id}/findings/by-column?by=holder")->assertOk()->assertExactJson([
            'items' => [],
            'isAll' => true,
            'isMasked' => true,
        ]);
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'filter',
            'filter' => ['text' => 'Thorn'],
            'decision' => 'ask',
            'askedId' => $this->owner->id,
            'reason' => 'as agreed',
            'seenAct' => 0,
        ])
            ->assertForbidden()
            ->assertJson(['code' => 'masked']);
        $this->api('GET', "/tallies/{$tally->id}/findings?pattern={$pattern}")->assertJson([
            'items' => [['source' => '(masked)', 'target' => '(masked)']],
        ]);
    }

    public function test_a_part_of_the_key_and_a_column_that_is_not_compared_are_masked_too(): void
    {
        [$source, $target] = ["basin,berth,holder,fee\n", "basin,berth,owner,fee,loaded\n"];
        foreach (range(1, 6) as $row) {
            $source .= 'KB,'.self::SECRET." {$row},A,1\n";
            $target .= 'KB,'.self::SECRET." {$row},B,1,".self::SECRET."\n";
        }
        $tally = $this->tallied($source.'LM,'.self::SECRET.' 7,"a, b",1'."\n", $target);
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'filter',
            'filter' => ['key' => self::SECRET.' 7', 'keyColumn' => 2],
            'decision' => 'expected',
            'reason' => 'as agreed',
            'seenAct' => 0,
        ])->assertCreated();
        $this->api('POST', "/datasets/{$this->dataset->id}/kept-filters", [
            'name' => 'One berth',
            'filter' => ['key' => self::SECRET.' 7', 'keyColumn' => 2],
        ])->assertCreated();
        /** @var array<string, mixed> $draft */
        $draft = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->json('draft');
        $this->api(
            'PUT',
            "/datasets/{$this->dataset->id}/plan",
            ['sensitive' => ['source' => ['berth'], 'target' => ['loaded']]] + $draft,
        )->assertOk();
        $this->deliver('source', $source, 'again.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $later = $this->dataset->latestTally() ?? throw new \LogicException;
        $this->actingAs($this->auditor());

        foreach ([$tally, $later] as $one) {
            foreach (
                [
                    "/tallies/{$one->id}",
                    "/tallies/{$one->id}/findings",
                    "/tallies/{$one->id}/findings?of=cells",
                    "/tallies/{$one->id}/findings?of=cells&beside[]=berth&beside[]=loaded",
                    "/tallies/{$one->id}/records/1",
                    "/tallies/{$one->id}/rulings",
                    "/tallies/{$one->id}/rulings-left-behind",
                    "/datasets/{$this->dataset->id}/kept-filters",
                    "/datasets/{$this->dataset->id}/tallies",
                    "/tallies/{$one->id}/findings/taken",
                    "/tallies/{$one->id}/report",
                    "/tallies/{$later->id}/against/{$tally->id}",
                ]
                as $path
            ) {
                self::assertDoesNotMatchRegularExpression('/thorn(ø|\\\\u00[df]8)y/iu', $this->content($path, 200), $path);
            }
            self::assertSame(
                [403, 403, 403, 200],
                array_map(fn(string $path): int => $this->api('GET', "/tallies/{$one->id}/{$path}")->getStatusCode(), [
                    'findings?keyColumn=2&key=x',
                    'keys?find=KB',
                    'agreeing-row?key[]=KB&key[]=3',
                    'findings?keyColumn=1&key=KB',
                ]),
            );
        }
        // Rows can still be told apart, and are known again in every list.
        $keys = static fn(iterable $items): array => array_map(strval(...), array_filter(array_column([...$items], 'key'), is_string(...)));
        $rows = $keys($this->objects($this->api('GET', "/tallies/{$tally->id}/findings"), 'items'));
        self::assertCount(7, array_unique($rows));
        self::assertMatchesRegularExpression('/^KB,\*[0-9a-f]{10}$/', $rows[0]);
        self::assertSame(
            array_slice($rows, 0, 6),
            $keys($this->objects($this->api('GET', "/tallies/{$tally->id}/findings?of=cells"), 'items')),
        );
    }

    public function test_a_warning_that_names_keys_is_masked_where_a_part_of_the_key_is(): void
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', "basin,berth,holder,fee\nKB,".self::SECRET." 1,A,1\n", 'old.csv');
        $this->deliver('target', "basin,berth,owner,fee,loaded\nKB,".self::SECRET." 1,A,1,t\n", 'new.csv');
        $this->match();
        /** @var array<string, mixed> $draft */
        $draft = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->json('draft');
        $this->api(
            'PUT',
            "/datasets/{$this->dataset->id}/plan",
            [
                'bridges' => [['source' => ['KB', self::SECRET.' 7'], 'target' => ['KB', self::SECRET.' 8']]],
                'refusedBridges' => [['source' => ['KB', self::SECRET.' 7'], 'target' => ['KB', self::SECRET.' 9']]],
                'keptRows' => [[
                    'side' => 'source',
                    'key' => ['KB', self::SECRET.' 1'],
                    'group' => hash('sha256', 'group'),
                    'row' => hash('sha256', 'row'),
                    'reason' => self::SECRET.' asked for it',
                ]],
                'sensitive' => ['source' => ['berth'], 'target' => []],
            ] + $draft,
        )->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? throw new \LogicException;
        $this->actingAs($this->auditor());
        self::assertStringNotContainsString(hash('sha256', 'row'), $this->content("/datasets/{$this->dataset->id}/plan", 200));

        $plan = "/datasets/{$this->dataset->id}/plan";
        foreach (["/tallies/{$tally->id}", "/datasets/{$this->dataset->id}/tallies", "/tallies/{$tally->id}/report", $plan] as $path) {
            self::assertDoesNotMatchRegularExpression('/thorn(ø|\\\\u00[df]8)y/iu', $this->content($path, 200), $path);
        }
        self::assertMatchesRegularExpression(
            '/The bridge from KB,\*\w{10} to KB,\*\w{10} joined nothing/',
            $this->content("/tallies/{$tally->id}", 200),
            'It is said all the same, with pseudonyms.',
        );
        self::assertStringNotContainsString(
            self::SECRET,
            Mask::over(['berth'], [], null, 'secret')->warnings(['Said by an earlier version of '.self::SECRET])[0],
        );
    }

    public function test_whoever_has_values_shown_is_on_record_and_sees_them_for_an_hour(): void
    {
        $tally = $this->withSensitiveHolder();
        $path = "/datasets/{$this->dataset->id}/unmaskings";
        $shown = fn(): mixed => $this->api('GET', "/datasets/{$tally->dataset_id}")->json('sensitive.masked') === [];

        self::assertFalse($shown());
        $this->api('POST', $path)->assertCreated();
        self::assertTrue($shown());
        $this->actingAs($this->owner);
        self::assertFalse($shown(), 'One person is shown what another asked for.');
        $this->api('GET', $path)->assertJson(['items' => [['person' => 'Ruth Osei']]]);
        $this->actingAs($this->analyst);
        $this->travel(61)->minutes();
        self::assertFalse($shown());
        $this->api('POST', $path)->assertCreated();
        $this->api('DELETE', $path)->assertNoContent();
        self::assertFalse($shown());
        $this->api('GET', $path)->assertJsonCount(3, 'items');
    }

    private function withSensitiveHolder(): Tally
    {
        [$source, $target] = ["basin,berth,holder,fee\n", "basin,berth,owner,fee,loaded\n"];
        foreach (range(1, 20) as $row) {
            $source .= "KB,{$row},".self::SECRET." {$row},1\n";
            $target .= "KB,{$row},".mb_strtoupper(self::SECRET." {$row}").",2,t\n";
        }
        $tally = $this->tallied($source.'LM,1,'.self::SECRET." lone,1\nLM,2,".self::SECRET.",1,too many\n", $target);
        // Flagged in the draft, a column is masked in tallies that were made before.
        $this->match([['source' => 'holder', 'target' => 'owner', 'sensitive' => true], ['source' => 'fee', 'target' => 'fee']]);

        return $tally;
    }

    private function auditor(): User
    {
        $auditor = $this->person('Imre Halloway');
        $this->migration->memberships()->create(['user_id' => $auditor->id, 'role' => Role::Auditor]);

        return $auditor;
    }

    private function patternOf(Tally $tally, string $column): int
    {
        return $tally->patterns()->where('source_column', $column)->firstOrFail()->number;
    }

    private function content(string $path, int $status): string
    {
        $response = $this->getJson("/api/v1{$path}");
        self::assertSame($status, $response->getStatusCode(), $path);

        return (string) ($response->baseResponse instanceof \Symfony\Component\HttpFoundation\StreamedResponse
            ? $response->streamedContent()
            : $response->getContent());
    }
}
