<?php

declare(strict_types=1);

namespace App\Http\Requests\Deliver;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Arr;
use Illuminate\Validation\Rule;
use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Delimited\QuoteSign;
use NineTally\Core\Intake\Encoding;
use NineTally\Core\Intake\PartKind;

final class CorrectFormatRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'delimiter' => ['string', static function (string $name, mixed $value, \Closure $fail): void {
                if (! is_string($value) || DelimitedFormat::delimiterNamed($value) === null) {
                    $fail(
                        'A delimiter is comma, semicolon, tab, bar, or another sign of one byte that stands in no value, such as ^ or ~.',
                    );
                }
            }],
            'quote' => [Rule::enum(QuoteSign::class)],
            'lineEnds' => [Rule::enum(LineEnds::class)],
            'encoding' => [Rule::enum(Encoding::class)],
            'header' => ['boolean'],
            'skipAbove' => ['integer', 'min:0', 'max:1000'],
            'skipBelow' => ['integer', 'min:0', 'max:1000'],
            'kind' => ['in:delimited,fixed-width'],
            'starts' => ['array', 'min:1', 'max:2000'],
            'starts.*' => ['integer', 'min:0', 'max:65536'],
            'path' => ['string', 'max:2000'],
            'sheet' => ['string', 'max:255'],
            'headerRow' => ['integer', 'min:1', 'max:100000'],
        ];
    }

    /**
     * @return array{delimiter?: string, lineEnds?: string, encoding?: string, header?: bool, skipAbove?: int, skipBelow?: int,
     *     starts?: list<int>, path?: string, sheet?: string, headerRow?: int, quote?: string}
     */
    public function corrections(): array
    {
        /**
         * @var array{delimiter?: string, lineEnds?: string, encoding?: string, header?: bool, skipAbove?: int, skipBelow?: int,
         *     starts?: list<int>, path?: string, sheet?: string, headerRow?: int, quote?: string} $corrections
         */
        $corrections = Arr::except($this->validated(), 'kind');

        return $corrections;
    }

    /** The kind of table that the text is, where it was found to be the other one. */
    public function kind(): ?PartKind
    {
        return $this->filled('kind') ? PartKind::from($this->string('kind')->toString()) : null;
    }
}
