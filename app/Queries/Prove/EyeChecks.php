<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\EyeCheck;
use App\Models\EyeCheckPerson;
use App\Models\EyeVerdict;
use App\Models\Tally;
use App\Models\User;
use App\Queries\Review\Mask;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Sampling\ZeroFailure;

/** Samples that people look at: how large they must be, which there are of a tally, and what was said of their rows. */
final readonly class EyeChecks
{
    public const CONFIDENCES = [0.9, 0.95, 0.99];

    public const SHARES = [0.001, 0.005, 0.01, 0.05];

    /**
     * Rows that agree and can be drawn, those that do so only for a rule apart: a key has to lead to each alone.
     *
     * @return array{identical: int, byRule: int}
     */
    public function populations(Tally $tally): array
    {
        $agreed = $tally->summary['rows']['source']['agreed'];
        // Tallies of before did not count them: then they are with the others.
        $byRule = min($agreed, $tally->summary['agreedByRule'] ?? 0);

        $apart = self::withoutOneKey($tally);

        return ['identical' => $agreed - $byRule - $apart['identical'], 'byRule' => max(0, $byRule - $apart['byRule'])];
    }

    /** @return array{identical: int, byRule: int} rows that agree and are never drawn: their key repeats, or a bridge joins two keys */
    public static function withoutOneKey(Tally $tally): array
    {
        return $tally->summary['agreedWithoutOneKey'] ?? ['identical' => 0, 'byRule' => 0];
    }

    /** @return array{identical: int, byRule: int} */
    public function sizes(Tally $tally, float $confidence, float $share): array
    {
        $plan = new ZeroFailure($confidence, $share);
        ['identical' => $identical, 'byRule' => $byRule] = $this->populations($tally);

        return ['identical' => $plan->size($identical), 'byRule' => $plan->size($byRule)];
    }

    /** @return list<array{confidence: float, share: float, identical: int, byRule: int}> */
    public function offers(Tally $tally): array
    {
        $offers = [];
        foreach (self::CONFIDENCES as $confidence) {
            foreach (self::SHARES as $share) {
                $offers[] = ['confidence' => $confidence, 'share' => $share, ...$this->sizes($tally, $confidence, $share)];
            }
        }

        return $offers;
    }

    /** @return list<array<string, mixed>> the newest first */
    public function all(Tally $tally): array
    {
        return array_values(
            EyeCheck::query()
                ->where('tally_id', $tally->id)
                ->with(['user', 'verdicts', 'people.user'])
                ->orderByDesc('id')
                ->get()
                ->map($this->summary(...))
                ->all(),
        );
    }

    /** @return array<string, mixed> */
    public function summary(EyeCheck $check): array
    {
        $said = [];
        foreach (EyeCheckResult::standing($check) as $verdict) {
            $said[$verdict->user_id] = ($said[$verdict->user_id] ?? 0) + 1;
        }

        return [
            'id' => $check->id,
            'tallyId' => $check->tally_id,
            'seed' => $check->seed,
            'confidence' => $check->confidence,
            'share' => $check->share,
            'by' => $check->user->name,
            'at' => $check->created_at->toIso8601ZuluString(),
            'strata' => EyeCheckResult::of($check)->strata,
            'people' => array_values(
                $check->people
                    ->map(static fn(EyeCheckPerson $person): array => [
                        'id' => $person->user_id,
                        'name' => $person->user->name,
                        'said' => $said[$person->user_id] ?? 0,
                    ])
                    ->all(),
            ),
        ];
    }

    /**
     * The rows of the sample with what was said of them: what others said is shown of rows that the person has ruled on, so that nobody
     * follows somebody else.
     *
     * @param  list<array{byRule: bool, key: list<string>, ...}>  $rows
     * @return list<array<string, mixed>>
     */
    public function rows(EyeCheck $check, array $rows, User $person, Mask $mask): array
    {
        $said = [];
        foreach (EyeCheckResult::standing($check->loadMissing('verdicts.user')) as $verdict) {
            $said[$verdict->place][$verdict->user_id] = $verdict;
        }

        return array_map(static function (int $nth, array $row) use ($said, $person, $mask): array {
            $ofRow = $said[$nth + 1] ?? [];
            $mine = $ofRow[$person->id] ?? null;
            $written = static fn(EyeVerdict $verdict): array => [
                'verdict' => $verdict->verdict,
                'remark' => $verdict->remark,
                'by' => $verdict->user->name,
                'at' => $verdict->created_at->toIso8601ZuluString(),
            ];

            return [
                'place' => $nth + 1,
                'byRule' => $row['byRule'],
                'key' => $mask->key(KeyTuple::of($row['key'])->asCsv()),
                'mine' => $mine === null ? null : $written($mine),
                'others' => $mine === null ? [] : array_values(array_map($written, array_diff_key($ofRow, [$person->id => true]))),
            ];
        }, array_keys($rows), $rows);
    }
}
