<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Models\Dataset;
use App\Models\Migration;
use App\Models\PublishedFigure;
use App\Models\Role;
use App\Models\Tally;
use App\Models\TallyTotal;
use App\Models\User;
use Tests\Support\ComputedFigures;

/**
 * Each figure of every station says what it counts, and is what the command line computes from the same deliveries, or the API answers. A
 * page is looked at when it has come to rest.
 */
final class ShownFiguresAreComputedTest extends BrowserTestCase
{
    use OnTheDemo;

    private const STATIONS = ['deliver', 'prepare', 'match', 'tally', 'review', 'prove', 'sign'];

    /**
     * Moorings are looked at everywhere, the others where they differ from them: several pages or parts and totals, steps and references,
     * signed, waiting to be signed, keys that the new system gave, and rows that repeat. Of them the report is read where there are several
     * totals.
     */
    private const IN_PART = [
        'Licences' => ['deliver', 'prove'],
        'Berth charges' => ['prepare', 'prove'],
        'Agents' => ['sign'],
        'Vessels' => ['deliver', 'review', 'sign'],
        'Holders' => ['review'],
        'Inspections' => ['tally'],
        'Wharves of wharves' => ['match', 'tally', 'review'],
    ];

    private const PROOFS = ['prove/references', 'prove/eye-check', 'prove/population'];

    /** @var array<string, list<string>> by address */
    private array $complaints = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->loadDemo();
        $this->analyst = User::query()->where('email', 'analyst@wherrymoor.example')->firstOrFail();
        $this->migration = Migration::query()->firstOrFail();
    }

    public function test_on_every_station_of_the_demo_and_of_three_other_datasets(): void
    {
        $demo = $this->migration->datasets()->has('tallies')->with('migration')->orderBy('id')->get()->all();
        $labels = ['source_label' => 'Old wharves', 'target_label' => 'New wharves'];
        $this->migration = Migration::query()->create(['name' => 'Wharves', ...$labels]);
        $this->migration->memberships()->create(['user_id' => $this->analyst->id, 'role' => Role::Analyst]);
        $nothing = "basin,berth,holder,fee\n";
        $other = [
            $this->dataset('of every class', self::OLD, self::NEW),
            $this->dataset('with nothing on one side', self::OLD, str_replace('holder', 'owner', $nothing)),
            // A key that forgives, one column that differs everywhere, and 1,200 rows.
            $this->dataset('of wharves', ...$this->wharves()),
        ];
        $this->signIn('analyst@wherrymoor.example');
        $this->see('Wharves');
        foreach ([...$demo, ...$other] as $dataset) {
            $this->dataset = $dataset;
            $this->stationsAreComputed();
        }
        foreach (Migration::query()->get() as $migration) {
            $this->open("/migrations/{$migration->id}");
            $this->areComputed($migration);
        }
        self::assertSame([], array_filter($this->complaints));
    }

    private function stationsAreComputed(): void
    {
        // What else can be proved is looked at where there is something to prove, and where there is nothing.
        $proofs = in_array($this->dataset->name, ['Licences', 'Wharves of every class'], true) ? self::PROOFS : [];
        foreach ([...self::IN_PART[$this->dataset->name] ?? self::STATIONS, ...$proofs] as $station) {
            $this->open("/datasets/{$this->dataset->id}/{$station}");
            $this->areComputed($this->dataset->migration);
        }
        if ($this->dataset->name === 'Licences' || ! isset(self::IN_PART[$this->dataset->name])) {
            $this->open("/api/v1/tallies/{$this->dataset->latestTally()?->id}/report");
            $this->areComputed($this->dataset->migration);
        }
    }

    /** Figures of work that goes on come one after the other, so the page is looked at until all of them hold. */
    private function areComputed(Migration $migration): void
    {
        $complaints = ['no figure'];
        $ends = microtime(true) + 10;
        $figures = [];
        do {
            // A part that is still being asked for has no figures yet, and would never be looked at.
            do {
                usleep(150_000);
                [$before, $figures] = [$figures, $this->figures()];
            } while (($figures === [] || $figures !== $before) && microtime(true) < $ends);
            $computed = [];
            $complaints = $figures === [] ? ['no figure'] : [];
            foreach ($figures as ['tally' => $tally, 'name' => $name, 'text' => $text]) {
                $of = $tally === '' ? $this->dataset->latestTally() : Tally::query()->find((int) $tally);
                $of ??= self::fail("{$name} is of a tally that is not there.");
                $computed[$of->id] ??= new ComputedFigures($of, fn(string $about): mixed => $this->answer($about, $of, $migration));
                $complaints[] = $computed[$of->id]->complaint($name, $text);
            }
            $complaints = array_values(array_unique(array_filter($complaints)));
        } while ($complaints !== [] && microtime(true) < $ends);
        $this->complaints[$this->browser->getCurrentURL()] = [...$complaints, ...$this->nameless($this->names())];
    }

    private function answer(string $about, Tally $tally, Migration $migration): mixed
    {
        $this->actingAs($this->analyst);
        $dataset = $tally->dataset;
        return match ($about) {
            'none' => 0,
            'board' => $this->api('GET', "/migrations/{$migration->id}/board")->json(),
            'course' => $this->api('GET', "/datasets/{$dataset->id}")->json(),
            'tally' => $this->api('GET', "/tallies/{$tally->id}")->json(),
            'proof' => $this->api('GET', "/tallies/{$tally->id}/totals")->json(),
            'proof-groups' => $this->api('GET', "/tallies/{$tally->id}/totals/1/groups")->json(),
            'eye-checks' => $this->api('GET', "/tallies/{$tally->id}/eye-checks")->json(),
            'sign-off' => $this->api('GET', "/tallies/{$tally->id}/sign-off")->json(),
            'population' => $this->api('GET', "/tallies/{$tally->id}/population")->json(),
            'references' => $this->api('GET', "/tallies/{$tally->id}/required-records")->json(),
            'rulings' => $this->api('GET', "/tallies/{$tally->id}/rulings")->json(),
            'trial' => $this->api('GET', "/datasets/{$dataset->id}/trial")->json(),
            'advice' => $this->api('GET', "/datasets/{$dataset->id}/advice")->json(),
            'misfits' => $this->api('GET', "/datasets/{$dataset->id}/misfits")->json(),
            'key-counts' => $this->api('POST', "/datasets/{$dataset->id}/key-counts", [
                'key' => data_get($dataset->draft?->document, 'key', []),
            ])->json(),
            'profile' => $this->profile($dataset),
            'preparation' => [
                'source' => $this->preparation($dataset, 'source'),
                'target' => $this->preparation($dataset, 'target'),
            ],
            'findings' => [
                'total' => $this->api('GET', "/tallies/{$tally->id}/findings/count?{$this->filter()}")->json('total'),
                'items' => $this->api('GET', "/tallies/{$tally->id}/findings?{$this->filter()}")->json('items'),
            ],
            'worth' => (array) $this->api('GET', "/tallies/{$tally->id}/findings/worth?{$this->filter()}")->json('items'),
            'record' => $this->record($tally),
            default => throw new \OutOfBoundsException("there is no answer about \"{$about}\""),
        };
    }

    /**
     * The record whose pane is open.
     *
     * @return array<array-key, mixed>
     */
    private function record(Tally $tally): array
    {
        $sequence = $this->browser->executeScript('return document.querySelector("[data-record]")?.dataset.record ?? "none"');
        self::assertIsString($sequence);
        $record = $this->api('GET', "/tallies/{$tally->id}/records/{$sequence}");

        return [...(array) $record->json(), 'counted' => [count($this->objects($record, 'fields')), ...range(0, 20)]];
    }

    /** What Review looks at stands in its address; so do the tally, the order and the finding that is opened. */
    private function filter(): string
    {
        parse_str((string) parse_url($this->browser->getCurrentURL(), PHP_URL_QUERY), $terms);
        unset($terms['tally'], $terms['order'], $terms['finding']);

        return http_build_query($terms + (isset($terms['pattern']) ? ['of' => 'cells'] : []));
    }

    /** @return array{source: array<string, mixed>, target: array<string, mixed>} by side and column */
    private function profile(Dataset $dataset): array
    {
        $profile = ['source' => [], 'target' => []];
        foreach ($this->objects($this->api('GET', "/datasets/{$dataset->id}/profile"), 'rows') as $row) {
            foreach (array_keys($profile) as $side) {
                if (is_array($row[$side]) && is_string($row[$side]['name'] ?? null)) {
                    $profile[$side][$row[$side]['name']] = $row[$side];
                }
            }
        }

        $rows = $this->objects($this->api('GET', "/datasets/{$dataset->id}/profile"), 'rows');
        $differing = array_filter($rows, static fn(array $row): bool => $row['weight'] > 0 || $row['looksChanged'] === true);

        return $profile + ['rows' => ['length' => count($rows), 'differing' => count($differing)]];
    }

    private function preparation(Dataset $dataset, string $side): mixed
    {
        $rules = (array) data_get($dataset->draft?->document, "sides.{$side}", []);

        return $this->api('POST', "/datasets/{$dataset->id}/preparation-trials", [
            'side' => $side,
            'preparation' => $rules['preparation'] ?? [],
            'reads' => (object) array_diff_key($rules, ['preparation' => true, 'repeats' => true, 'key' => true]),
            'references' => (object) data_get($dataset->draft?->document, 'references', []),
            'chosen' => null,
        ])->json();
    }

    /** @return list<string> what may hold digits and names something */
    private function names(): array
    {
        $names = [];
        foreach ([$this->dataset->latestTally()?->sourceDelivery, $this->dataset->latestTally()?->targetDelivery] as $delivery) {
            $names = [...$names, ...($delivery === null ? [] : [...$delivery->columns, ...$delivery->parts->pluck('file_name')->all()])];
        }
        $publishers = PublishedFigure::query()->where('dataset_id', $this->dataset->id)->pluck('publisher')->all();

        // A unit value stands in the name of its total; longer names come first, for names of columns stand in them.
        $totals = TallyTotal::query()->get()->map(static fn(TallyTotal $total): string => mb_substr($total->total()->name(), 1))->all();

        return array_values(array_filter([...$totals, ...$names, ...$publishers], is_string(...)));
    }

    private function dataset(string $name, string $old, string $new): Dataset
    {
        $this->dataset = $this->migration->datasets()->create(['name' => "Wharves {$name}"]);
        $this->tallied($old, $new);

        return $this->dataset->load('migration');
    }

    /** @return array{string, string} */
    private function wharves(): array
    {
        [$old, $new] = ["basin,berth,holder,fee\n", "basin,berth,owner,fee,loaded\n"];
        foreach (range(1, 1_200) as $berth) {
            $old .= sprintf("KB,%d,Holder %d,%d.00\n", $berth, $berth % 40, $berth);
            $new .= sprintf("%s,%d,HOLDER %d,%s,t\n", $berth % 3 === 0 ? 'LM' : 'KB', $berth, $berth % 40, $berth % 5 === 0 ? '' : $berth);
        }

        return [$old, $new];
    }

    /**
     * Every named figure, and every sentence of the engine, of the page as it stands, in the order of the page.
     *
     * @return list<array{tally: string, name: string, text: string}> tally: the id of the one that it is of, where the page says so
     */
    private function figures(): array
    {
        /** @var list<array{tally: string, name: string, text: string}> $figures */
        $figures = $this->browser->executeScript(<<<'JS'
            const every = '[data-figure], [data-sentence=patterns], [data-sentence=steps]'
            return [...document.querySelectorAll(every)].filter((one) => one.checkVisibility()).map((one) => ({
              tally: one.closest('[data-tally]')?.dataset.tally ?? '',
              name: one.dataset.figure ?? 'sentence',
              text: one.textContent.trim(),
            }))
            JS);

        return $figures;
    }

    /**
     * What has a digit and no name. Numbers that name something (tally 4, plan 2, line 7, a day, an hour) are no figures, nor are values of
     * cells, nor what somebody types.
     *
     * @param  list<string>  $names  of columns, files, datasets and publishers, which may hold digits
     * @return list<string>
     */
    private function nameless(array $names): array
    {
        $nameless = $this->browser->executeScript(<<<'JS'
            const named =
              '[data-figure], [data-sentence], [data-ordinal], .el-select, .cell, input, textarea, select, kbd, code, script, style'
            const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
            const found = []
            for (let node = walker.nextNode(); node; node = walker.nextNode()) {
              const { parentElement: of, data } = node
              if (/\d/.test(data) && !of.closest(named) && of.checkVisibility()) found.push(data.trim())
            }
            return found
            JS);
        $identifiers = [
            '/SHA-256|engine \d+\.\d+\.\d+/',
            '/\b\d{1,2} [A-Z][a-z]+ \d{4}, \d{2}:\d{2} UTC/',
            '/\b\d+ (h|min|s)\b/',
            '/\b\d{1,2} [A-Z][a-z]{2}( \d{4})?( \d{2}:\d{2})?/',
            '/\b(today|at) \d{2}:\d{2}/',
            '/\b(tally|plan|delivery|deliveries|step|no\.|line|row of names|ruling) \d+( (and|or|with tally) \d+)?/i',
        ];
        $left = array_filter(
            is_array($nameless) ? array_map(strval(...), array_filter($nameless, is_scalar(...))) : [],
            static fn(string $text): bool => preg_match('/\d/', (string) preg_replace($identifiers, '', str_replace($names, '', $text))) ===
                1,
        );
        return array_map(static fn(string $text): string => "without a name: {$text}", array_values(array_unique($left)));
    }
}
