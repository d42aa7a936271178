<?php

declare(strict_types=1);

namespace App\Actions\Notices;

use App\Models\NoticeKind;
use App\Models\Pattern;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\Waiver;
use App\Signing\HeldLimits;
use NineTally\Core\Row\Counted;
use NineTally\Core\Row\Side;

/** What there is to tell of a tally that was entered: that it is done, which limits fail, and what the one before it did not have. */
final readonly class TellOfTally
{
    private const NAMED = 5;

    public function __construct(private HeldLimits $limits, private GiveNotice $give) {}

    public function __invoke(Tally $tally): void
    {
        $tally->load(HeldLimits::RELATIONS);
        $before = $tally->dataset->tallies()->where('number', $tally->number - 1)->first();
        $name = "tally {$tally->number} of {$tally->dataset->name}";
        $tell = fn(NoticeKind $kind, string $said, string $station) => ($this->give)($kind, $tally->dataset, $tally, $said, $station);
        $open = StandingCount::openOf($tally->standingCounts);
        $tell(
            NoticeKind::TallyDone,
            ucfirst($name).' is done: '.($open === 0 ? 'nothing is open.' : Counted::of($open, 'finding').' open.'),
            'tally',
        );
        $failing = array_values(
            array_filter(
                $this->limits->of($tally),
                static fn(array $limit): bool => $limit['held']->state->fails() && ! ($limit['waiver'] instanceof Waiver),
            ),
        );
        if ($failing !== []) {
            $names = array_map(static fn(array $limit): string => $limit['held']->limit->sentence($limit['scope']), $failing);
            $tell(NoticeKind::LimitFailed, sprintf('%s in %s: %s.', self::fail(count($failing)), $name, self::listed($names)), 'sign');
        }
        if ($before === null) {
            return;
        }
        $new = $this->newPatterns($tally, $before);
        if ($new > 0) {
            $tell(
                NoticeKind::NewPatterns,
                ucfirst($name).' has '.Counted::of($new, 'pattern')." that tally {$before->number} did not have.",
                'review',
            );
        }
        $repeated = static fn(Tally $of): array => array_map(
            static fn(Side $side): int => $of->summary['rows'][$side->value]['repeated'] ?? 0,
            Side::cases(),
        );
        if (array_sum($repeated($tally)) > 0 && array_sum($repeated($before)) === 0) {
            [$source, $target] = $repeated($tally);
            $rows = Counted::of($source, 'row').' of the source and '.number_format($target).' of the target';
            $tell(NoticeKind::NewRepeats, "Keys repeat in {$name}: {$rows} have one. In tally {$before->number} none did.", 'repeats');
        }
    }

    private function newPatterns(Tally $tally, Tally $before): int
    {
        $identities = static fn(Tally $of): array => $of
            ->patterns()
            ->get(['pair_id', 'class', 'cause', 'facts'])
            ->map(
                static fn(Pattern $pattern): string => serialize([
                    $pattern->pair_id,
                    $pattern->class->value,
                    $pattern->cause,
                    $pattern->facts,
                ]),
            )
            ->all();

        return count(array_diff($identities($tally), $identities($before)));
    }

    private static function fail(int $limits): string
    {
        return Counted::of($limits, 'limit').' '.($limits === 1 ? 'fails' : 'fail');
    }

    /** @param list<string> $names */
    private static function listed(array $names): string
    {
        $more = count($names) - self::NAMED;

        return implode('; ', array_slice($names, 0, self::NAMED)).($more > 0 ? "; and {$more} more" : '');
    }
}
