<?php

declare(strict_types=1);

namespace Tests\Feature\Start;

use PHPUnit\Framework\TestCase;

/** What PHPStan cannot see of the order of the house: methods that write are called by no query. */
final class QueriesOnlyReadTest extends TestCase
{
    private const WRITES = '/(?:->|::)(?:insert\w*|update\w*|delete|upsert|save|create\w*|firstOrCreate|dispatch\w*|statement|touch)\(/';

    public function test_no_query_writes(): void
    {
        $folder = dirname(__DIR__, 3).'/app/Queries';
        $found = [];
        /** @var \SplFileInfo $file */
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS)) as $file) {
            $lines = file($file->getPathname()) ?: [];
            foreach (array_keys(preg_grep(self::WRITES, $lines) ?: []) as $number) {
                $found[] = substr($file->getPathname(), strlen($folder)).':'.($number + 1).' '.trim($lines[$number]);
            }
        }

        self::assertSame([], $found);
        self::assertSame(1, preg_match(self::WRITES, '$answer->delete();'));
    }
}
