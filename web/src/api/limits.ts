// Made from docs/openapi.json by "npm run types".
export const limits = {
  BasketChange: {
    reason: {
      longest: 500
    },
    text: {
      longest: 500
    }
  },
  CalendarForm: {
    name: {
      longest: 100
    }
  },
  CloseDay: {
    name: {
      longest: 200
    }
  },
  ContactForm: {
    email: {
      longest: 254
    },
    groups: {
      most: 50
    },
    name: {
      longest: 200
    },
    notes: {
      longest: 10000
    },
    organisation: {
      longest: 200
    },
    reference: {
      longest: 100
    }
  },
  Decision: {
    reason: {
      longest: 500
    }
  },
  ExchangeSheet: {
    days: {
      most: 180,
      least: 1
    },
    item: {
      longest: 200
    },
    message: {
      longest: 4000
    },
    name: {
      longest: 60
    },
    passcode: {
      longest: 64
    },
    title: {
      longest: 150
    }
  },
  Keep: {
    name: {
      longest: 200
    }
  },
  Mapping: {
    group: {
      longest: 100
    }
  },
  NewAppPassword: {
    name: {
      longest: 100
    }
  },
  ParcelSheet: {
    days: {
      most: 180,
      least: 1
    },
    keptDays: {
      most: 365,
      least: 0
    },
    message: {
      longest: 4000
    },
    mostPickUps: {
      most: 1000,
      least: 1
    },
    name: {
      longest: 60
    },
    passcode: {
      longest: 64
    },
    people: {
      most: 1000
    },
    reminders: {
      most: 8
    },
    title: {
      longest: 150
    }
  },
  ParcelStep: {
    days: {
      most: 0,
      least: -180
    }
  },
  PasskeyMade: {
    label: {
      longest: 100
    }
  },
  Regroup: {
    group: {
      longest: 100
    }
  },
  Removal: {
    reason: {
      longest: 500
    }
  },
  RoundSheet: {
    folderPattern: {
      longest: 300
    },
    graceHours: {
      most: 2160,
      least: 0
    },
    items: {
      most: 50
    },
    namePattern: {
      longest: 300
    },
    note: {
      longest: 10000
    },
    passcode: {
      longest: 64
    },
    title: {
      longest: 200
    },
    warningHours: {
      most: 2160,
      least: 0
    }
  },
  SeriesTerms: {
    opensDaysBefore: {
      most: 180,
      least: 0
    },
    rule: {
      longest: 500
    }
  },
  SheetItem: {
    help: {
      longest: 2000
    },
    maxFiles: {
      most: 5000,
      least: 1
    },
    maxMebibytes: {
      most: 1048576,
      least: 1
    },
    minFiles: {
      most: 5000,
      least: 1
    },
    title: {
      longest: 200
    }
  },
  SheetLetters: {
    repeatEvery: {
      most: 60,
      least: 1
    },
    repeatTimes: {
      most: 20,
      least: 0
    },
    steps: {
      most: 8
    }
  },
  SheetStep: {
    days: {
      most: 180,
      least: -180
    }
  },
  TermsForm: {
    days: {
      most: 180,
      least: 1
    },
    fileMebibytes: {
      most: 1048576,
      least: 1
    },
    files: {
      most: 1000000,
      least: 1
    },
    name: {
      longest: 60
    },
    totalMebibytes: {
      most: 8388608,
      least: 1
    },
    uses: {
      most: 1000000,
      least: 1
    }
  },
  TypedFace: {
    contact: {
      longest: 300
    },
    name: {
      longest: 120
    },
    privacy: {
      longest: 600
    }
  },
  TypedKeptPlan: {
    name: {
      longest: 100
    }
  },
  TypedLetterSetting: {
    signature: {
      longest: 1000
    }
  },
  TypedText: {
    body: {
      longest: 5000
    },
    subject: {
      longest: 150
    }
  }
} as const
