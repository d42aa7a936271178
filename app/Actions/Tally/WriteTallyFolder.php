<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Models\Tally;
use App\Queries\Tally\FolderOfTally;
use Illuminate\Support\Str;
use NineTally\Core\Tally\Workspace;

/** Writes all that a tally was made of into a folder, from which the command line makes it again. */
final readonly class WriteTallyFolder
{
    public function __construct(private FolderOfTally $folder) {}

    /** @throws \RuntimeException when the folder is there already, or cannot be written */
    public function __invoke(Tally $tally, string $folder): void
    {
        if (file_exists($folder)) {
            throw new \RuntimeException(sprintf('"%s" is there already. Name a folder that is not there yet.', $folder));
        }
        // Written aside and renamed: the name never stands for half a tally.
        $aside = "{$folder}.".Str::random(8);
        try {
            $isWritten = @mkdir($aside, 0700);
            foreach ($this->folder->of($tally) as $kind => $some) {
                foreach ($some as $name => $content) {
                    $isWritten =
                        $isWritten &&
                        ($kind === 'files'
                            ? @copy($content, "{$aside}/{$name}")
                            : @file_put_contents("{$aside}/{$name}", $content) === strlen($content));
                }
            }
            if (! $isWritten || ! @rename($aside, $folder)) {
                throw new \RuntimeException(
                    sprintf(
                        'The folder "%s" could not be written. Name one whose parent is there and may be written to, on a disk that has '.
                            'room.',
                        $folder,
                    ),
                );
            }
        } finally {
            Workspace::at($aside)->remove();
        }
    }
}
