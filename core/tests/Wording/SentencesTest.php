<?php

declare(strict_types=1);

namespace NineTally\Tests\Wording;

use NineTally\Core\Wording\Sentences;
use NineTally\Core\Wording\Warning;
use NineTally\Core\Wording\WarningKind;
use PHPUnit\Framework\TestCase;

final class SentencesTest extends TestCase
{
    public function test_of_many_warnings_of_a_kind_the_first_are_told_and_how_many_more_there_are(): void
    {
        $warnings = array_map(
            static fn(int $number): Warning => new Warning(WarningKind::IdleBridge, ['source' => "H-{$number}", 'target' => "9{$number}"]),
            range(1, 1_021),
        );
        $told = (new Sentences)->warnings([...$warnings, new Warning(WarningKind::NoRows, ['side' => 'source'])]);

        self::assertCount(22, $told);
        self::assertStringContainsString('H-20', $told[19]);
        self::assertSame('And 1,001 more warnings of this kind.', $told[20]);
        self::assertStringContainsString('no rows', $told[21]);
    }
}
