<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Dataset;
use App\Models\Migration;
use App\Models\SigningTerms;
use App\Models\Tally;
use App\Queries\Board\LookedUp;
use App\Signing\HeldLimits;
use App\Signing\SignedContent;
use App\Signing\SigningWords;
use App\Signing\SignOff;
use App\Signing\SignOffState;
use NineTally\Core\Figures\Percentage;

/** The migration as a whole, on one page: what nobody has signed first. */
final readonly class MigrationReport
{
    /** What is farthest from a signature comes first. */
    private const ORDER = ['none', 'withdrawn', 'returned', 'overtaken', 'prepared', 'checked', 'accepted'];

    public function __construct(private HeldLimits $limits, private FirstPage $firstPage) {}

    /** @return array<string, mixed> for the view "report.migration" */
    public function of(Migration $migration): array
    {
        $lines = [];
        $values = $right = 0;
        $datasets = $migration->datasets()->with('draft')->orderBy('name')->get();
        $lookedUp = LookedUp::among($datasets);
        foreach ($datasets as $dataset) {
            $line = $this->line($dataset);
            if ($line['tally'] === null && $lookedUp->has($dataset)) {
                // A reference has nothing to sign.
                continue;
            }
            $lines[] = $line;
            $values += $line['tally']->summary['values']['values'] ?? 0;
            $right += $line['tally']->summary['values']['right'] ?? 0;
        }
        usort(
            $lines,
            static fn(array $one, array $other): int => array_search($one['state'], self::ORDER, true) <=>
                array_search($other['state'], self::ORDER, true),
        );
        $tallied = array_filter($lines, static fn(array $line): bool => $line['tally'] !== null);
        $terms = SigningTerms::of($migration);

        return [
            'migration' => $migration,
            'lines' => $lines,
            'tallied' => count($tallied),
            'accepted' => count(array_filter($tallied, static fn(array $line): bool => $line['state'] === SignOffState::Accepted->value)),
            'agreement' => (new Percentage($right, $values))->text(),
            'right' => $right,
            'values' => $values,
            'dutiesRelaxed' => FirstPage::relaxed($terms),
        ];
    }

    /**
     * @return array{dataset: Dataset, tally: Tally|null, state: string, headline: string, limits: string, things: list<string>,
     *     signOff: SignOff|null, findings: array<string, int>}
     */
    private function line(Dataset $dataset): array
    {
        $tally = $dataset->latestTally()?->load(HeldLimits::RELATIONS);
        if ($tally === null) {
            return [
                'dataset' => $dataset,
                'tally' => null,
                'state' => SignOffState::None->value,
                'headline' => "{$dataset->name} was not tallied yet",
                'limits' => '',
                'things' => [],
                'signOff' => null,
                'findings' => [],
            ];
        }
        $signOff = SignOff::of($tally);
        $limits = $this->limits->of($tally);

        return [
            'dataset' => $dataset,
            'tally' => $tally,
            'state' => $signOff->state->value,
            'headline' => $this->firstPage->verdict($tally, $signOff, $limits) ?? "Nobody said what is good enough for {$dataset->name}",
            'limits' => SigningWords::limits($limits),
            'things' => $this->firstPage->things($tally, $limits),
            'signOff' => $signOff,
            'findings' => SignedContent::counts($tally),
        ];
    }
}
