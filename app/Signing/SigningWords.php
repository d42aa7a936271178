<?php

declare(strict_types=1);

namespace App\Signing;

use App\Models\SignatureAct;
use App\Models\Tally;
use App\Models\Waiver;
use NineTally\Core\Limits\HeldLimit;

/** What is signed, in one sentence. */
final readonly class SigningWords
{
    /** @param list<array{held: HeldLimit, scope: string, waiver: Waiver|null}> $limits */
    public static function of(SignatureAct $act, Tally $tally, array $limits): string
    {
        return sprintf(
            'I %s tally %d of %s: %s; %s.',
            $act === SignatureAct::Accepted ? 'accept' : "have {$act->value}",
            $tally->number,
            $tally->dataset->name,
            self::limits($limits),
            self::findings($tally),
        );
    }

    /** @param list<array{held: HeldLimit, scope: string, waiver: Waiver|null}> $limits */
    public static function limits(array $limits): string
    {
        ['all' => $all, 'failing' => $failing, 'waived' => $waived] = self::counts($limits);

        return match (true) {
            $all === 0 => 'no limit is set',
            $failing + $waived === 0 => $all === 1 ? 'the one limit holds' : "all {$all} limits hold",
            default => implode(', ', [
                sprintf('%d of %d limits hold', $all - $failing - $waived, $all),
                ...$waived === 0 ? [] : [sprintf('%d %s waived', $waived, $waived === 1 ? 'is' : 'are')],
                ...$failing === 0 ? [] : [sprintf('%d %s', $failing, $failing === 1 ? 'fails' : 'fail')],
            ]),
        };
    }

    /**
     * @param  list<array{held: HeldLimit, scope: string, waiver: Waiver|null}>  $limits
     * @return array{all: int, failing: int, waived: int} those that are waived are not among those that fail
     */
    public static function counts(array $limits): array
    {
        $waived = count(array_filter($limits, static fn(array $one): bool => $one['waiver'] !== null));
        $failing = count(array_filter($limits, static fn(array $one): bool => $one['held']->state->fails()));

        return ['all' => count($limits), 'failing' => $failing - $waived, 'waived' => $waived];
    }

    private static function findings(Tally $tally): string
    {
        $counts = SignedContent::counts($tally);
        if ($counts['findings'] === 0) {
            return 'nothing differs';
        }

        return sprintf(
            'of %s %s %s expected, %s %s, %s asked, %s without a ruling',
            number_format($counts['findings']),
            $counts['findings'] === 1 ? 'finding' : 'findings',
            number_format($counts['expected']),
            number_format($counts['defect']),
            $counts['defect'] === 1 ? 'a defect' : 'defects',
            number_format($counts['ask']),
            number_format($counts['open']),
        );
    }
}
