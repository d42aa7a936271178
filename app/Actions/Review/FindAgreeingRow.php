<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Models\Answer;
use App\Models\Tally;
use App\Queries\Review\Mask;
use App\Queries\Review\Record;
use App\Queries\Review\TallyColumns;
use App\Questions\Answers;
use App\Questions\KeyOffsets;
use App\Questions\QuestionContext;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Row\KeyTuple;

/**
 * Rows of which both sides have the same. The first who asks waits until a worker has looked through both sides; from then on a row is
 * found at once.
 */
final readonly class FindAgreeingRow
{
    public function __construct(private Answers $answers, private QuestionContext $material) {}

    /**
     * @param  list<string>  $key
     * @return array{Answer, Record|null} the record is null while its answer is waited for, and if no row of both sides has the key
     */
    public function find(Tally $tally, Mask $mask, array $key): array
    {
        $question = KeyOffsets::ofTally($tally);
        $answer = $this->answers->to($question);
        if ($answer->isWaiting() || $answer->problem !== null) {
            return [$answer, null];
        }
        $rows = $question->rows($this->material, $key);
        if ($rows === null) {
            // It was cleared up because nobody had used it for long.
            $answer->delete();

            return [$this->answers->to($question), null];
        }
        if ($rows['source'] === null || $rows['target'] === null) {
            return [$answer, null];
        }
        $row = new RowFinding(
            0,
            1,
            RowClass::Agreed,
            null,
            null,
            $rows['source'],
            $rows['target'],
            ['source' => 1, 'target' => 1],
            deliveredKey: KeyTuple::of($key),
        );

        return [$answer, Record::ofAgreeing($mask->row($row, $layout = TallyColumns::ofTally($tally)), $layout)];
    }
}
