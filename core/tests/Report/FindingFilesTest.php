<?php

declare(strict_types=1);

namespace NineTally\Tests\Report;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Report\FindingFiles;
use NineTally\Core\Report\UnwritableFolder;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

final class FindingFilesTest extends TestCase
{
    use TemporaryFiles;

    public function test_a_result_that_was_not_finished_leaves_nothing_behind(): void
    {
        $folder = $this->folder('out');
        $files = $this->files($folder);
        $files->add($this->extra());
        self::assertNotSame([], glob("{$folder}/*"));

        unset($files);

        self::assertSame([], glob("{$folder}/*"));
    }

    public function test_an_earlier_result_stays_until_the_new_one_is_whole(): void
    {
        $folder = $this->folder('out');
        file_put_contents("{$folder}/extra.csv", 'the earlier one');
        $files = $this->files($folder);
        $files->add($this->extra());

        self::assertSame('the earlier one', file_get_contents("{$folder}/extra.csv"));
    }

    public function test_a_folder_that_cannot_be_written_is_named(): void
    {
        $file = $this->file('x', 'not-a-folder');

        $this->expectException(UnwritableFolder::class);
        $this->expectExceptionMessage('Check that you may write there and that the disk is not full');
        $this->files("{$file}/out");
    }

    private function files(string $folder): FindingFiles
    {
        $columns = Columns::named('old.csv', ['basin', 'berth']);

        return FindingFiles::in($folder, Plan::pairing($columns, $columns, ['basin']), $columns, $columns);
    }

    private function extra(): RowFinding
    {
        return new RowFinding(1, 1, RowClass::Extra, Side::Target, KeyTuple::of(['KB']), target: new RowRecord(2, ['KB', '1']));
    }
}
