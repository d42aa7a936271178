<?php

declare(strict_types=1);

namespace App\Signing;

use App\Models\SigningTerms;
use App\Models\Tally;
use App\Models\User;
use App\Models\Waiver;
use App\Rulings\FindingGroup;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Limits\HeldLimit;
use NineTally\Core\Limits\LimitFigure;
use NineTally\Core\Row\Counted;

/**
 * What stands in the way of a signature, each with where it is put right. A limit that fails blocks acceptance alone: whoever prepares and
 * checks shows how it is, and the data owner waives or returns.
 *
 * @phpstan-type Block array{code: string, words: string, link: string, for: list<string>}
 */
final readonly class SigningBlocks
{
    private const ALL = ['prepared', 'checked', 'accepted'];

    public function __construct(private Connection $database) {}

    /**
     * @param  list<array{held: HeldLimit, scope: string, waiver: Waiver|null}>  $limits
     * @return list<Block> for everybody
     */
    public function of(Tally $tally, array $limits): array
    {
        $blocks = [];
        $newest = $tally->dataset->latestTally();
        $dataset = "/datasets/{$tally->dataset_id}";
        if ($newest !== null && $newest->number > $tally->number && $tally->signatures->isEmpty()) {
            $blocks[] = self::block('newer-tally', "Tally {$newest->number} is newer: sign that one.", "{$dataset}/sign", ['prepared']);
        }
        $blocks = [...$blocks, ...self::whatever($tally)];
        foreach ($limits as ['held' => $held, 'scope' => $scope, 'waiver' => $waiver]) {
            if ($held->state->fails() && $waiver === null) {
                $blocks[] = self::block(
                    'limit',
                    sprintf('%s, and it is %s.', ucfirst($held->limit->sentence($scope)), $held->value()),
                    $dataset.self::placeOf($held->limit->figure, $tally),
                    ['accepted'],
                );
            }
        }

        return $blocks;
    }

    /**
     * What stands in the way of every signature, whatever the limits.
     *
     * @param  Tally  $tally  with its counts, and that it was purged
     * @return list<Block>
     */
    public static function whatever(Tally $tally): array
    {
        $blocks = [];
        $dataset = "/datasets/{$tally->dataset_id}";
        if ($tally->purged !== null) {
            $blocks[] = self::block(
                'purged',
                'Its content was purged, so nobody can look at what they would sign. Deliver and tally again.',
                "/migrations/{$tally->dataset->migration_id}/content",
                self::ALL,
            );
        }
        $refused = $tally->standingCounts->firstWhere('group', FindingGroup::ofClass(RowClass::Refused)->name());
        if ($refused !== null && $refused->open() > 0) {
            $blocks[] = self::block(
                'refused',
                sprintf(
                    '%s could not be read and %s without a ruling.',
                    Counted::of($refused->open(), 'record'),
                    $refused->open() === 1 ? 'is' : 'are',
                ),
                "{$dataset}/review?tally={$tally->id}&class=refused",
                self::ALL,
            );
        }

        return $blocks;
    }

    /** @return list<Block> for one person alone: nobody signs twice, and nobody accepts what is their own */
    public function duties(Tally $tally, User $person, SignOff $signOff): array
    {
        $terms = SigningTerms::of($tally->dataset->migration);
        $blocks = [];
        $link = "/datasets/{$tally->dataset_id}/sign";
        $given = array_filter($signOff->round, static fn($signature): bool => $signature->user_id === $person->id);
        if ($given !== [] && ! $terms['maySignTwice']) {
            $blocks[] = self::block('signed-already', 'You have signed this already, and nobody gives two signatures.', $link, self::ALL);
        }
        if (! $terms['mayAcceptOwn']) {
            foreach ($this->own($tally, $person) as $words) {
                $blocks[] = self::block('own', "{$words}, and nobody accepts what is their own. Another data owner has to.", $link, [
                    'accepted',
                ]);
            }
        }

        return $blocks;
    }

    /** @return list<string> what of the signed state a person made */
    public function own(Tally $tally, User $person): array
    {
        $own = [];
        if ($tally->planVersion->user_id === $person->id) {
            $own[] = "You made version {$tally->planVersion->number} of the plan";
        }
        $rulings = $this->database
            ->table('standing_acts')
            ->join('rulings', 'rulings.id', '=', 'standing_acts.ruling_id')
            ->where(['standing_acts.tally_id' => $tally->id, 'rulings.user_id' => $person->id])
            ->where('standing_acts.findings', '>', 0)
            ->count();
        if ($rulings > 0) {
            $own[] = sprintf('%s of yours %s', Counted::of($rulings, 'ruling'), $rulings === 1 ? 'stands' : 'stand');
        }

        return $own;
    }

    /** Where the rows of a figure are. */
    public static function placeOf(LimitFigure $figure, Tally $tally): string
    {
        $review = "/review?tally={$tally->id}";

        return match ($figure) {
            LimitFigure::RowsMissing, LimitFigure::RowsArrived => "{$review}&class=missing",
            LimitFigure::RowsExtra => "{$review}&class=extra",
            LimitFigure::RowsChanged => "{$review}&class=changed",
            LimitFigure::RowsRepeated => "{$review}&class=repeated",
            LimitFigure::RowsUnkeyed => "{$review}&class=unkeyed",
            LimitFigure::RowsRefused => "{$review}&class=refused",
            LimitFigure::RowsLeftOut => '/prepare',
            LimitFigure::TotalsApart, LimitFigure::TotalDifference => '/prove',
            LimitFigure::RecordsLost, LimitFigure::RecordsLacking => '/prove/references',
            LimitFigure::DemandsUnmet => '/prove/population',
            LimitFigure::WrongByEye => '/prove/eye-check',
            LimitFigure::HandOverSlip, LimitFigure::ExtractGap => '/deliver',
            LimitFigure::FindingsDefect => '/defects',
            LimitFigure::FindingsOpen => "{$review}&ruling=open",
            LimitFigure::FindingsAsked => "{$review}&ruling=ask",
            default => $review,
        };
    }

    /**
     * @param  list<string>  $for  signatures
     * @return Block
     */
    private static function block(string $code, string $words, string $link, array $for): array
    {
        return ['code' => $code, 'words' => $words, 'link' => $link, 'for' => $for];
    }
}
