<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use OpenSpout\Common\Manager\OptionsManagerInterface;
use OpenSpout\Reader\Common\Entity\Options;
use OpenSpout\Reader\ODS\Creator\HelperFactory;
use OpenSpout\Reader\ODS\Creator\InternalEntityFactory;
use OpenSpout\Reader\ODS\Creator\ManagerFactory;
use OpenSpout\Reader\ODS\Manager\OptionsManager;
use OpenSpout\Reader\ODS\Reader;
use OpenSpout\Reader\ODS\Sheet;
use OpenSpout\Reader\Wrapper\XMLReader;

/** Makes OpenSpout read the sheets of an Open Document through {@see OpenDocumentRows}. */
final class OpenDocumentSheets extends InternalEntityFactory
{
    private function __construct(private readonly HelperFactory $helpers, private readonly ManagerFactory $managers)
    {
        parent::__construct($helpers, $managers);
    }

    public static function reader(): Reader
    {
        $helpers = new HelperFactory;

        return new Reader(new OptionsManager, $helpers->createGlobalFunctionsHelper(), new self($helpers, new ManagerFactory));
    }

    /**
     * @param  XMLReader  $xmlReader
     * @param  int  $sheetIndex
     * @param  string  $sheetName
     * @param  bool  $isSheetActive
     * @param  bool  $isSheetVisible
     * @param  OptionsManagerInterface  $optionsManager
     */
    public function createSheet($xmlReader, $sheetIndex, $sheetName, $isSheetActive, $isSheetVisible, $optionsManager): Sheet
    {
        $formatter = $this->helpers->createCellValueFormatter((bool) $optionsManager->getOption(Options::SHOULD_FORMAT_DATES));

        return new Sheet(
            new OpenDocumentRows($xmlReader, $optionsManager, $formatter, $this->managers->createRowManager($this), $this),
            $sheetIndex,
            $sheetName,
            $isSheetActive,
            $isSheetVisible,
        );
    }
}
