<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\Balance;
use NineTally\Core\Tally\SideCounts;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Each equation that accounts for every row is broken, and it alone. */
final class BalanceTest extends TestCase
{
    private const SUMS = [
        'read' => 100,
        'refused' => 3,
        'delivered' => 97,
        'leftOut' => 7,
        'made' => 40,
        'condensed' => 20,
        'prepared' => 110,
        'unkeyed' => 1,
        'partlyBlankKeys' => 0,
        'repeated' => 4,
        'keysRepeatedHereOnly' => 0,
        'keysRepeatedByForgiving' => 0,
        'agreed' => 90,
        'changed' => 10,
        'unmatched' => 5,
    ];

    public function test_sums_that_add_up_pass(): void
    {
        $this->expectNotToPerformAssertions();
        (new Balance($this->counts(Side::Source), $this->counts(Side::Target)))->mustHold();
    }

    /** @param array<string, int> $wrong by how much which figures are off */
    #[DataProvider('brokenSums')]
    public function test_no_broken_sum_passes(string $equation, array $wrong): void
    {
        foreach (Side::cases() as $side) {
            $counts = ['source' => $this->counts(Side::Source), 'target' => $this->counts(Side::Target)];
            $counts[$side->value] = $this->counts($side, $wrong);
            try {
                (new Balance($counts['source'], $counts['target']))->mustHold();
                self::fail("A {$side->value} whose sums are wrong was reported.");
            } catch (UnbalancedTally $problem) {
                self::assertSame(str_replace('{side}', $side->value, $equation), $problem->equation);
                self::assertSame(1, abs((int) $problem->left - (int) $problem->right));
            }
        }
    }

    /** @return iterable<string, array{string, array<string, int>}> */
    public static function brokenSums(): iterable
    {
        yield 'a record that was read is lost' => ['{side}: records read = refused + delivered', ['read' => 1]];
        yield 'a step lost a row' => ['{side}: delivered + made = left out + merged + prepared', ['leftOut' => -1]];
        yield 'a step made a row that it does not count' => ['{side}: delivered + made = left out + merged + prepared', ['made' => -1]];
        yield 'a row fell into no class' => ['{side}: prepared = unkeyed + repeated + agreed + changed + unmatched', ['repeated' => -1]];
        yield 'a row fell into two classes' => ['{side}: prepared = unkeyed + repeated + agreed + changed + unmatched', ['unkeyed' => 1]];
        yield 'a row agrees with nothing' => ['both sides agreed', ['agreed' => 1, 'unmatched' => -1]];
        yield 'a row differs from nothing' => ['both sides changed', ['changed' => 1, 'unmatched' => -1]];
    }

    /** @param array<string, int> $wrong */
    private function counts(Side $side, array $wrong = []): SideCounts
    {
        $sums = self::SUMS;
        foreach ($wrong as $figure => $difference) {
            $sums[$figure] += $difference;
        }

        return new SideCounts($side, ...$sums);
    }
}
