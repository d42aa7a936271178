<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Adapters\Seal\SealKeys;
use App\Models\Pattern;
use App\Models\ReportText;
use App\Models\Signature;
use App\Models\SigningTerms;
use App\Models\Tally;
use App\Models\TallyTotal;
use App\Models\Waiver;
use App\Queries\Prove\Population;
use App\Queries\Review\Masks;
use App\Signing\HeldLimits;
use App\Signing\SignedContent;
use App\Signing\SigningWords;
use App\Signing\SignOff;
use App\Signing\SignOffState;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Limits\HeldLimit;

/** What a board reads before anything else: whether it is good enough, for whom, and the three things to know. */
final readonly class FirstPage
{
    private const THINGS = 3;

    /** More would push the page over its end. */
    private const LIMITS = 9;

    public function __construct(private HeldLimits $limits, private Population $population, private Masks $masks, private SealKeys $keys) {}

    /** @return array<string, mixed> */
    public function of(Tally $tally): array
    {
        $tally->load(HeldLimits::RELATIONS);
        $signOff = SignOff::of($tally);
        $limits = $this->limits->of($tally);
        $terms = SigningTerms::of($tally->dataset->migration);

        return [
            'signOff' => $signOff,
            'texts' => ReportText::standing($tally->id),
            'limits' => $limits,
            'limitsOnFirstPage' => self::LIMITS,
            'verdict' => $this->verdict($tally, $signOff, $limits),
            'limitsInWords' => SigningWords::limits($limits),
            'exceptions' => $this->limits->exceptions($tally),
            'things' => $this->things($tally, $limits),
            'population' => $this->population->of($tally),
            'dutiesRelaxed' => self::relaxed($terms),
            'sealKey' => $this->keys->key()->fingerprint(),
            'tookTwo' => $this->tookTwo($signOff),
        ];
    }

    /**
     * @param  list<array{held: HeldLimit, scope: string, waiver: Waiver|null}>  $limits
     * @return string|null null where nobody said what is good enough
     */
    public function verdict(Tally $tally, SignOff $signOff, array $limits): ?string
    {
        $name = $tally->dataset->name;
        ['failing' => $failing, 'waived' => $waived] = SigningWords::counts($limits);

        return match (true) {
            $limits === [] => $signOff->state === SignOffState::Accepted ? "{$name} is accepted, and no limit was set" : null,
            $failing > 0 => sprintf(
                '%s is not good enough: %d of %d limits %s',
                $name,
                $failing,
                count($limits),
                $failing === 1 ? 'fails' : 'fail',
            ),
            $signOff->state === SignOffState::Accepted => "{$name} is accepted".
                ($waived === 0 ? ' within its limits' : ", with {$waived} of its limits waived"),
            $waived > 0 => "{$name} is good enough but for {$waived} waived ".
                ($waived === 1 ? 'limit' : 'limits').
                ', and not accepted yet',
            default => "{$name} is within its limits, and not accepted yet",
        };
    }

    /**
     * What was waived and what fails come first, then what is open or broken, then where most of the differences are.
     *
     * @param  list<array{held: HeldLimit, scope: string, waiver: Waiver|null}>  $limits
     * @return list<string>
     */
    public function things(Tally $tally, array $limits): array
    {
        $waived = $failing = $failingNames = $further = [];
        foreach ($limits as ['held' => $held, 'scope' => $scope, 'waiver' => $waiver]) {
            $words = ucfirst($held->limit->sentence($scope)).', and it is '.$held->value();
            if ($waiver !== null) {
                $waived[] = sprintf(
                    '%s. Waived by %s until %s: %s%s',
                    $words,
                    $waiver->user->name,
                    $waiver->ends_on->format('j F Y'),
                    $waiver->reason,
                    $waiver->ticket === null ? '' : " ({$waiver->ticket})",
                );
            } elseif ($held->state->fails()) {
                $failing[] = $words;
                // The worst value and the figure stand in the table below.
                $failingNames[] = $held->limit->name($scope);
            }
        }
        $counts = SignedContent::counts($tally);
        if ($counts['defect'] > 0) {
            $further[] = sprintf(
                '%s of %s findings %s ruled a defect: they have to be corrected in the target.',
                number_format($counts['defect']),
                number_format($counts['findings']),
                $counts['defect'] === 1 ? 'is' : 'are',
            );
        }
        if ($counts['open'] > 0) {
            $further[] = sprintf(
                '%s of %s findings have no ruling yet.',
                number_format($counts['open']),
                number_format($counts['findings']),
            );
        }

        // In the table below each stands with its figure.
        $failing = count($failing) < 2 ? array_map(static fn(string $one): string => "{$one}.", $failing) : [
            sprintf('%d limits fail: %s.', count($failing), implode('; ', $failingNames)),
        ];
        $all = [...$waived, ...$failing, ...$further, ...$this->totals($tally), ...$this->patterns($tally), ...$this->apart($tally)];

        return array_slice($all, 0, self::THINGS);
    }

    /**
     * @param  array{needsCheck: bool, maySignTwice: bool, mayAcceptOwn: bool, ...}  $terms
     * @return list<string> duties that are not apart in the migration
     */
    public static function relaxed(array $terms): array
    {
        return array_keys(array_filter([
            'no test manager checks' => ! $terms['needsCheck'],
            'one person may give several signatures' => $terms['maySignTwice'],
            'who ruled or made the plan may accept' => $terms['mayAcceptOwn'],
        ]));
    }

    /** @return list<string> */
    private function totals(Tally $tally): array
    {
        $mask = $this->masks->ofTally($tally);
        $apart = $tally->totals
            ->filter(static fn(TallyTotal $total): bool => $total->differs && ! $mask->hidesTotal($total->total()))
            ->sortByDesc(static fn(TallyTotal $total): float => $total->partThatDiffers());
        $most = $apart->first();

        if ($most !== null && $tally->totals->count() === 1) {
            return [sprintf('The only control total differs: %s.', $most->total()->sentence())];
        }

        return $most === null ? [] : [sprintf(
            '%d of %d control totals differ, most: %s.',
            $tally->totals->filter(static fn(TallyTotal $total): bool => $total->differs)->count(),
            $tally->totals->count(),
            $most->total()->sentence(),
        )];
    }

    /** @return list<string> */
    private function patterns(Tally $tally): array
    {
        $most = Pattern::query()->where('tally_id', $tally->id)->orderByDesc('cells')->orderBy('number')->first();

        return $most === null ? [] : [sprintf(
            'Most cells differ in %s: %s, %s.',
            $most->source_column,
            CauseId::sentenceFor($most->cause, $most->facts),
            number_format($most->cells).($most->cells === 1 ? ' cell' : ' cells'),
        )];
    }

    /** @return list<string> */
    private function apart(Tally $tally): array
    {
        $rows = $tally->summary['rows'];
        $apart = $rows['source']['repeated'] + $rows['target']['repeated'] + $rows['source']['unkeyed'] + $rows['target']['unkeyed'];

        return $apart === 0 ? [] : [sprintf('%s rows repeat their key or have none, and were not all compared.', number_format($apart))];
    }

    /** @return list<string> who gave more than one signature */
    private function tookTwo(SignOff $signOff): array
    {
        $given = array_count_values(array_map(static fn(Signature $one): string => $one->user->name, $signOff->round));

        return array_map(strval(...), array_keys(array_filter($given, static fn(int $times): bool => $times > 1)));
    }
}
