<?php

declare(strict_types=1);

namespace NineTally\Tests\Pathological;

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\NineTallyException;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Profile\SideProfile;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Damaged at random, each is read or refused in words that name it, in little memory: a short run of bin/fuzz. */
final class MutatedFilesTest extends TestCase
{
    use TemporaryFiles;

    private const FILES = 60;

    private const MOST_MEMORY = 64 * 1024 * 1024;

    #[DataProvider('readers')]
    public function test_it_is_read_or_refused(string $reader): void
    {
        $mutations = new Mutations($this->folder(), 20_261_129);
        $ends = ['read' => 0, 'refused' => 0];
        for ($number = 1; $number <= self::FILES; $number++) {
            $path = $this->file($mutations->file($reader, $number), "damaged-{$number}.{$reader}");
            memory_reset_peak_usage();
            $before = memory_get_usage();
            try {
                $opened = (new ReaderCatalogue)->open($path, basename($path));
                $stack = new PartStack([['reader' => $opened, 'label' => 'a']], null);
                // What was read can be told to others.
                json_encode(SideProfile::ofRecords($stack->columns, $stack->records())->toArray(), JSON_THROW_ON_ERROR);
                $ends['read']++;
            } catch (NineTallyException $refusal) {
                self::assertStringContainsString(basename($path), $refusal->getMessage(), "file {$number}");
                $ends['refused']++;
            }
            self::assertLessThan(self::MOST_MEMORY, memory_get_peak_usage() - $before, "file {$number}");
        }

        self::assertSame(self::FILES, array_sum($ends));
        self::assertGreaterThan(0, $ends['read']);
        self::assertGreaterThan(0, $ends['refused']);
    }

    /** @return iterable<string, array{string}> */
    public static function readers(): iterable
    {
        foreach (Mutations::READERS as $reader) {
            yield $reader => [$reader];
        }
    }
}
