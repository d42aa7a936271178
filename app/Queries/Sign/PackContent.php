<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Signature;
use App\Models\SignedState;
use App\Models\Tally;
use App\Problems\NoRoom;
use App\Queries\Review\Mask;
use App\Queries\Review\Masks;
use App\Queries\TakeAway\FindingTables;
use App\Queries\TakeAway\Table;
use App\Queries\TakeAway\TableText;
use App\Rulings\FindingSet\Filter;
use NineTally\Core\Plan\PlanDocument;
use NineTally\Core\Seal\BagWriter;
use NineTally\Core\Tally\EngineVersion;

/**
 * What is in an evidence pack: everything in open formats, masked for everybody in one way; with clear values only where a data owner
 * ordered that.
 */
final readonly class PackContent
{
    private const TABLES_ARE = 'https://datapackage.org/profiles/2.0/datapackage.json';

    public function __construct(
        private ReportPage $report,
        private FindingTables $findings,
        private PackTables $tables,
        private Masks $masks,
    ) {}

    /**
     * @param  Tally  $tally  with {@see \App\Signing\HeldLimits::RELATIONS}
     * @param  string  $work  a folder for what is written aside until the bag is finished
     * @param  callable(string): string  $print  makes a PDF of HTML
     */
    public function write(BagWriter $bag, Tally $tally, bool $hasClearValues, string $work, callable $print): void
    {
        $mask = $hasClearValues ? $this->masks->none() : $this->masks->ofTally($tally);
        $html = $this->report->html($tally);
        $bag->text('report.html', $html);
        $bag->text('report.pdf', $print($html));
        $bag->text('figures.json', self::json($this->figures($tally)));
        $plan = $hasClearValues ? $tally->planVersion->plan() : $this->masks->planOf($tally);
        $bag->text('plan.json', self::json($plan->toArray()));
        $bag->text(
            'plan.schema.json',
            (string) file_get_contents(dirname((string) (new \ReflectionClass(PlanDocument::class))->getFileName()).'/plan.schema.json'),
        );
        $bag->text(
            'made-of.json',
            self::json([...$tally->summary['madeOf'], 'parameters' => (object) ($tally->summary['parameters'] ?? [])]),
        );
        $bag->text('datapackage.json', self::json($this->writeTables($bag, $tally, $mask, $work)));
        $this->signatures($bag, $tally);
    }

    /** @return array<string, string> for bag-info.txt */
    public static function info(string $about, \DateTimeImmutable $at): array
    {
        return [
            'Source-Organization' => 'Nine Tally',
            'Bagging-Date' => $at->format('Y-m-d'),
            'External-Description' => "Evidence of a reconciliation: {$about}",
            'Bag-Software-Agent' => 'Nine Tally '.EngineVersion::ENGINE,
        ];
    }

    /** @return array<string, mixed> */
    private function figures(Tally $tally): array
    {
        return array_intersect_key(
            $tally->summary,
            array_flip(['rows', 'cells', 'values', 'figures', 'engine', 'repeats', 'agreedByRule']),
        );
    }

    /** @return array<string, mixed> the description of the tables (Data Package, version 2) */
    private function writeTables(BagWriter $bag, Tally $tally, Mask $mask, string $work): array
    {
        $resources = [];
        foreach (['rows', 'cells'] as $of) {
            $table = $this->findings->of($tally, $mask, Filter::from(['of' => $of]));
            $resources[] = self::written($bag, "findings-{$of}", $table, $work);
        }
        foreach ($this->tables->of($tally, $mask) as $name => $table) {
            $resources[] = self::written($bag, $name, $table, $work);
        }

        return [
            '$schema' => self::TABLES_ARE,
            'name' => 'evidence',
            'title' => "{$tally->dataset->name}, tally {$tally->number}",
            'resources' => $resources,
        ];
    }

    /** @return array<string, mixed> how the table is described */
    private static function written(BagWriter $bag, string $name, Table $table, string $work): array
    {
        $path = "{$work}/{$name}.csv";
        $file = fopen($path, 'wb') ?: throw new \RuntimeException('The work folder cannot be written to.');
        foreach ((new TableText($table))->csv(false) as $line) {
            if (fwrite($file, $line) !== strlen($line)) {
                throw NoRoom::writing();
            }
        }
        fclose($file);
        $bag->file("{$name}.csv", $path);

        return self::resource($name, $table);
    }

    /** @return array<string, mixed> */
    private static function resource(string $name, Table $table): array
    {
        return [
            'name' => $name,
            'path' => "{$name}.csv",
            'type' => 'table',
            'format' => 'csv',
            'mediatype' => 'text/csv',
            'encoding' => 'utf-8',
            // RFC 4180, said: readers that guess guess wrong in short tables.
            'dialect' => ['delimiter' => ',', 'lineTerminator' => "\n", 'quoteChar' => '"', 'doubleQuote' => true, 'header' => true],
            'schema' => (new TableText($table))->schema(),
        ];
    }

    /** All acts of signing, and each state that was signed under the digest that its signature names. */
    private function signatures(BagWriter $bag, Tally $tally): void
    {
        $bag->text(
            'signatures.json',
            self::json(
                array_values(
                    $tally->signatures
                        ->map(
                            static fn(Signature $one): array => [
                                'act' => $one->act->value,
                                'person' => $one->user->name,
                                'role' => $one->role->value,
                                'method' => $one->method,
                                'words' => $one->words,
                                'reason' => $one->reason,
                                'digest' => $one->digest,
                                'at' => $one->created_at->toIso8601ZuluString(),
                            ],
                        )
                        ->all(),
                ),
            ),
        );
        foreach (
            SignedState::query()
                ->whereIn('digest', $tally->signatures->pluck('digest')->filter())
                ->orderBy('digest')
                ->get()
            as $state
        ) {
            $bag->text("signed/{$state->digest}.json", $state->content);
        }
    }

    private static function json(mixed $document): string
    {
        return json_encode($document, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR)."\n";
    }
}
