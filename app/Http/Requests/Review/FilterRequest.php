<?php

declare(strict_types=1);

namespace App\Http\Requests\Review;

use App\Queries\Review\AdditionalColumns;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FindingOrder;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

/** A filter in the address, byte for byte as it was sent: a value may be blank or a space, and nothing is trimmed here. */
final class FilterRequest extends FormRequest
{
    private const LARGEST_PAGE = 500;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'from' => ['integer', 'min:1'],
            'limit' => ['integer', 'min:1', 'max:'.self::LARGEST_PAGE],
            'order' => [Rule::enum(FindingOrder::class)],
            'as' => ['in:csv,json-lines'],
            'for' => ['in:spreadsheets'],
            'by' => ['string', 'max:10000'],
            'finding' => ['integer', 'min:1'],
            'beside' => ['array', 'max:'.AdditionalColumns::MOST_COLUMNS],
            'beside.*' => ['string', 'max:10000'],
        ];
    }

    public function filter(): Filter
    {
        return Filter::from(array_diff_key(self::sentIn($this), $this->rules()));
    }

    /** @return array<array-key, mixed> the query of an address, byte for byte */
    public static function sentIn(Request $request): array
    {
        $query = $request->server('QUERY_STRING');
        parse_str(is_string($query) ? $query : '', $sent);

        return $sent;
    }

    /** @return list<string> names of columns that are shown beside the findings */
    public function beside(): array
    {
        return array_values(array_filter((array) $this->query('beside'), is_string(...)));
    }

    /** What stands first, where it is not the order of the source that is asked for. */
    public function order(): ?FindingOrder
    {
        return $this->enum('order', FindingOrder::class);
    }

    public function from(): int
    {
        return $this->integer('from', 1);
    }

    public function limit(): int
    {
        return $this->integer('limit', 100);
    }
}
